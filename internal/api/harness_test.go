package api

import (
	"context"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/store"
	"wakefield.example/internal/store/storetest"
)

// serving is a server over a database of its own, with the store beneath it.
func serving(t testing.TB, p *plan.Plan, settings string, o Options) (*client, *store.Store) {
	t.Helper()
	s := storetest.Open(t, cluster, t.Name(), settings)
	if p != nil {
		if _, err := s.Create(context.Background(), "site", store.Note{Author: "Test", Sentence: "Site made"}, p); err != nil {
			t.Fatal(err)
		}
	}
	server := httptest.NewServer(New(t.Context(), s, o))
	t.Cleanup(server.Close)
	return &client{t, server.URL}, s
}

// send makes a request with headers and returns status and body.
func (c *client) send(method, path, body string, headers ...string) (int, http.Header, string) {
	c.Helper()
	request, err := http.NewRequest(method, c.url+path, strings.NewReader(body))
	if err != nil {
		c.Fatal(err)
	}
	request.Header.Set("Content-Type", "application/json")
	for i := 0; i < len(headers); i += 2 {
		if headers[i] == "Host" {
			request.Host = headers[i+1]
		} else {
			request.Header.Set(headers[i], headers[i+1])
		}
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		c.Fatal(err)
	}
	defer response.Body.Close()
	data, err := io.ReadAll(response.Body)
	if err != nil {
		c.Fatal(err)
	}
	return response.StatusCode, response.Header, string(data)
}
