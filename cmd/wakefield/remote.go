package main

import (
	"bytes"
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"strings"
	"time"
)

// remote is a server that is asked with a token.
type remote struct {
	Server    string `required:"" env:"WAKEFIELD_SERVER" placeholder:"URL" help:"Where the server is, such as https://plan.example."`
	TokenFile string `env:"WAKEFIELD_TOKEN_FILE" type:"existingfile" help:"File that holds the token; else it is in the environment, as WAKEFIELD_TOKEN."`
}

// mostRemote is what is read of an answer, in bytes.
const mostRemote = 100 << 20

// token is what is shown to the server; empty for none.
func (r remote) token() (string, error) {
	if r.TokenFile == "" {
		return os.Getenv("WAKEFIELD_TOKEN"), nil
	}
	data, err := os.ReadFile(r.TokenFile)
	return strings.TrimSpace(string(data)), err
}

// address is where the server is. A token is not sent in the clear.
func (r remote) address(token string) (string, error) {
	base, err := url.Parse(r.Server)
	if err != nil || base.Host == "" || base.Scheme != "http" && base.Scheme != "https" {
		return "", fmt.Errorf("--server %s is no address such as https://plan.example", r.Server)
	}
	if name := base.Hostname(); base.Scheme == "http" && token != "" && name != "localhost" && name != "127.0.0.1" && name != "::1" {
		return "", errors.New("the token would go over the network in the clear: the address of the server begins with https://")
	}
	return strings.TrimSuffix(base.String(), "/"), nil
}

// ask makes a request and returns the answer. What the server refuses is told in its words.
func (r remote) ask(ctx context.Context, method, path string, body []byte) ([]byte, error) {
	token, err := r.token()
	if err != nil {
		return nil, err
	}
	address, err := r.address(token)
	if err != nil {
		return nil, err
	}
	request, err := http.NewRequestWithContext(ctx, method, address+path, bytes.NewReader(body))
	if err != nil {
		return nil, err
	}
	if token != "" {
		request.Header.Set("Authorization", "Bearer "+token)
	}
	request.Header.Set("Content-Type", "application/json")
	if method == http.MethodPost {
		request.Header.Set("Idempotency-Key", rand.Text())
	}
	client := http.Client{Timeout: time.Minute, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	answer, err := client.Do(request)
	if err != nil {
		return nil, err
	}
	defer answer.Body.Close()
	data, err := io.ReadAll(io.LimitReader(answer.Body, mostRemote+1))
	switch {
	case err != nil:
		return nil, err
	case len(data) > mostRemote:
		return nil, fmt.Errorf("the answer has more than %d MB", mostRemote>>20)
	case answer.StatusCode < 300:
		return data, nil
	}
	return nil, fmt.Errorf("%s answers %d: %s", r.Server, answer.StatusCode, refusal(data, answer.StatusCode, token))
}

// refusal is why a server refused, in its words.
func refusal(data []byte, status int, token string) string {
	var problem struct{ Detail string }
	if json.Unmarshal(data, &problem) != nil || problem.Detail == "" {
		return "it is no Wakefield, or a proxy answers in its place"
	}
	if status == http.StatusUnauthorized && token == "" {
		return problem.Detail + " There is no token: --token-file names one, or WAKEFIELD_TOKEN is it"
	}
	return problem.Detail
}

// pullCommand fetches a plan from a server.
type pullCommand struct {
	remote
	Site   string `arg:"" help:"Id of the site, as its address has it."`
	Plan   string `help:"Id of the variant; the adopted one where it is not named."`
	Output string `short:"o" type:"path" help:"File to write; standard output where it is not named."`
}

func (c *pullCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	plan := c.Plan
	if plan == "" {
		data, err := c.ask(ctx, http.MethodGet, "/api/sites/"+url.PathEscape(c.Site), nil)
		if err != nil {
			return err
		}
		var site struct{ Site struct{ Adopted string } }
		if err := json.Unmarshal(data, &site); err != nil || site.Site.Adopted == "" {
			return fmt.Errorf("%s tells of no adopted variant", c.Server)
		}
		plan = site.Site.Adopted
	}
	data, err := c.ask(ctx, http.MethodGet, "/api/plans/"+url.PathEscape(plan)+"/file", nil)
	if err != nil {
		return err
	}
	if c.Output == "" {
		_, err = os.Stdout.Write(data)
		return err
	}
	return os.WriteFile(c.Output, data, 0o644)
}

// pushCommand gives a plan to a server. Nothing that is there is changed.
type pushCommand struct {
	remote
	File string `arg:"" type:"existingfile" help:"Plan file."`
	Site string `help:"Id of a site, of which the plan becomes a further variant; a new site where it is not named."`
}

func (c *pushCommand) Run() error {
	ctx, stop := untilStopped()
	defer stop()
	data, err := os.ReadFile(c.File)
	if err != nil {
		return err
	}
	path := "/api/sites"
	if c.Site != "" {
		path += "/" + url.PathEscape(c.Site) + "/plans/file"
	}
	answer, err := c.ask(ctx, http.MethodPost, path, data)
	if err != nil {
		return err
	}
	var made struct{ ID string }
	if err := json.Unmarshal(answer, &made); err != nil || made.ID == "" {
		return fmt.Errorf("%s does not tell what it made", c.Server)
	}
	where := "/sites/" + made.ID
	if c.Site != "" {
		where = "/sites/" + c.Site + "?variant=" + made.ID
	}
	fmt.Println(strings.TrimSuffix(c.Server, "/") + where)
	return nil
}
