// Package several runs several servers of Wakefield behind nginx on loopback, by the recipe in docs/recipe, for tests.
package several

import (
	"fmt"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"
)

// Recipe is the folder of the recipe, from a package two folders deep.
const Recipe = "../../docs/recipe"

// Servers are several servers, and the proxy before them.
type Servers struct {
	testing.TB
	Address string // of the proxy
	All     []*Server

	program, database string
	log               *os.File
}

// Server is one of them.
type Server struct {
	Address string
	cmd     *exec.Cmd
}

// Start builds the program, starts as many servers as the recipe has on a database, and the proxy before them. What they say goes into a
// file that is named where the test fails.
func Start(t testing.TB, database string) *Servers {
	t.Helper()
	s := &Servers{TB: t, program: filepath.Join(t.TempDir(), "wakefield"), database: database}
	if out, err := exec.Command("go", "build", "-o", s.program, "wakefield.example/cmd/wakefield").CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	var err error
	if s.log, err = os.CreateTemp("", "wakefield-several-*.log"); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		s.log.Close()
		if t.Failed() {
			t.Log("what servers and proxy said is in ", s.log.Name())
		} else {
			os.Remove(s.log.Name())
		}
	})
	conf, err := os.ReadFile(Recipe + "/nginx.conf")
	if err != nil {
		t.Fatal(err)
	}
	text := string(conf)
	for _, at := range regexp.MustCompile(`127\.0\.0\.1:846\d`).FindAllString(text, -1) {
		server := &Server{Address: free(t)}
		s.All = append(s.All, server)
		text = strings.Replace(text, at, server.Address, 1)
		s.start(server)
	}
	t.Cleanup(func() {
		for _, server := range s.All {
			server.end(syscall.SIGTERM)
		}
	})
	for _, server := range s.All {
		s.UntilReady(server)
	}
	s.proxy(text)
	return s
}

// arguments are those with which the recipe's unit starts a server, but for accounts, its proxy and its name: tests come without.
func arguments(t testing.TB, address string) []string {
	unit, err := os.ReadFile(Recipe + "/wakefield@.service")
	if err != nil {
		t.Fatal(err)
	}
	found := regexp.MustCompile(`(?m)^ExecStart=\S+ (.*)$`).FindStringSubmatch(string(unit))
	if found == nil {
		t.Fatal("the recipe's unit starts nothing")
	}
	line := strings.Replace(found[1], "127.0.0.1:%i", address, 1)
	line = strings.Replace(line, " --trusted-proxy 127.0.0.1 --host plan.example", " --open", 1)
	return strings.Fields(line)
}

// environment is what the recipe sets for a server.
func environment(t testing.TB) (lines []string) {
	file, err := os.ReadFile(Recipe + "/environment")
	if err != nil {
		t.Fatal(err)
	}
	for line := range strings.Lines(string(file)) {
		if line = strings.TrimSpace(line); line != "" && !strings.HasPrefix(line, "#") {
			lines = append(lines, line)
		}
	}
	return lines
}

func (s *Servers) start(server *Server) {
	s.Helper()
	server.cmd = exec.Command(s.program, arguments(s, server.Address)...)
	server.cmd.Env = append(append(os.Environ(), environment(s)...), "WAKEFIELD_DATABASE="+s.database, "WAKEFIELD_DEVICE_KEY_FILE="+
		filepath.Join(filepath.Dir(s.program), "device.key"))
	server.cmd.Stdout, server.cmd.Stderr = s.log, s.log
	server.cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
	if err := server.cmd.Start(); err != nil {
		s.Fatal(err)
	}
}

// PID is the server's process.
func (server *Server) PID() int { return server.cmd.Process.Pid }

func (server *Server) end(signal syscall.Signal) {
	server.cmd.Process.Signal(signal)
	server.cmd.Wait()
}

// Restart ends a server as systemd would, starts it again, and waits until it is ready.
func (s *Servers) Restart(server *Server) {
	s.Helper()
	server.end(syscall.SIGTERM)
	s.start(server)
	s.UntilReady(server)
}

// UntilReady waits until a server can keep changes.
func (s *Servers) UntilReady(server *Server) {
	s.Helper()
	s.answers("http://" + server.Address + "/readyz")
}

func (s *Servers) answers(url string) {
	s.Helper()
	for end := time.Now().Add(time.Minute); time.Now().Before(end); time.Sleep(20 * time.Millisecond) {
		if response, err := http.Get(url); err == nil {
			response.Body.Close()
			if response.StatusCode == http.StatusOK {
				return
			}
		}
	}
	s.Fatalf("%s does not answer within a minute", url)
}

// proxy starts nginx with the recipe's configuration, without TLS and on a free port.
func (s *Servers) proxy(text string) {
	s.Helper()
	program, err := exec.LookPath("nginx")
	if err != nil {
		program = "../../.cache/nginx/usr/sbin/nginx" // scripts/prepare puts it there
	}
	if program, err = filepath.Abs(program); err != nil {
		s.Fatal(err)
	}
	dir := s.TempDir()
	s.Address = free(s)
	text = strings.Replace(text, "listen 443 ssl;", "listen "+s.Address+";", 1)
	text = regexp.MustCompile(`(?m)^\s*ssl_certificate.*$`).ReplaceAllString(text, "")
	var temp strings.Builder
	for _, kind := range []string{"client_body", "proxy", "fastcgi", "uwsgi", "scgi"} {
		fmt.Fprintf(&temp, "%s_temp_path %s;\n", kind, filepath.Join(dir, kind))
	}
	file := filepath.Join(dir, "nginx.conf")
	whole := fmt.Sprintf("daemon off;\nmaster_process off;\npid %s/pid;\nerror_log %s;\nevents { worker_connections 4096; }\nhttp {\naccess_log off;\n%s%s}\n",
		dir, s.log.Name(), temp.String(), text)
	if err := os.WriteFile(file, []byte(whole), 0o600); err != nil {
		s.Fatal(err)
	}
	cmd := exec.Command(program, "-p", dir, "-c", file, "-e", s.log.Name())
	cmd.Stdout, cmd.Stderr = s.log, s.log
	cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
	if err := cmd.Start(); err != nil {
		s.Fatal(err)
	}
	s.Cleanup(func() {
		cmd.Process.Signal(syscall.SIGTERM)
		cmd.Wait()
	})
	s.answers("http://" + s.Address + "/readyz")
}

func free(t testing.TB) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	return l.Addr().String()
}
