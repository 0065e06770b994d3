package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

var program string

// TestMain builds the program once and runs the tests on it.
func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "wakefield-cmd-")
	if err != nil {
		panic(err)
	}
	program = filepath.Join(dir, "wakefield")
	if out, err := exec.Command("go", "build", "-o", program, ".").CombinedOutput(); err != nil {
		panic(string(out))
	}
	status := m.Run()
	os.RemoveAll(dir)
	os.Exit(status)
}

// run runs the program and returns what it printed and its exit status.
func run(t *testing.T, args ...string) (out, errors string, status int) {
	t.Helper()
	var stdout, stderr bytes.Buffer
	cmd := exec.Command(program, args...)
	cmd.Stdout, cmd.Stderr = &stdout, &stderr
	err := cmd.Run()
	if cmd.ProcessState == nil {
		t.Fatal(err)
	}
	return stdout.String(), stderr.String(), cmd.ProcessState.ExitCode()
}

func write(t *testing.T, data []byte) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), "plan.json")
	if err := os.WriteFile(file, data, 0o644); err != nil {
		t.Fatal(err)
	}
	return file
}

func quay(t *testing.T) []byte {
	t.Helper()
	data, err := demo.PennywhistleQuay().Write()
	if err != nil {
		t.Fatal(err)
	}
	return data
}

func TestEstimateForPeopleAndPrograms(t *testing.T) {
	file := write(t, quay(t))
	table, _, status := run(t, "estimate", file)
	if status != 0 || !strings.Contains(table, "Gangway A") || !strings.Contains(table, "Harbour office recorder") ||
		!strings.Contains(table, "no camera") ||
		!strings.Contains(table, "Harbour phone") || !strings.Contains(table, "Yard horn") || !strings.Contains(table, "Harbour office screen") ||
		!strings.Contains(table, "Fuel store") {
		t.Errorf("status %d:\n%s", status, table)
	}
	out, _, status := run(t, "estimate", "--json", file)
	var figures struct {
		Format                                                  string
		Channels, Pools, Recorders, Messages, Outputs, Monitors []map[string]any
		Offsite                                                 map[string]any
	}
	if err := json.Unmarshal([]byte(out), &figures); err != nil || status != 0 {
		t.Fatalf("status %d, %v", status, err)
	}
	if !strings.Contains(out, `"narrowerDays"`) {
		t.Error("what would be worth knowing is not told")
	}
	if figures.Format != "wakefield-estimate/1" || len(figures.Channels) != 16 || len(figures.Pools) != 1 {
		t.Errorf("%.300s", out)
	}
	for list, members := range map[string][]string{
		"channels":  {"id", "writtenPercent", "eventPercent", "averageKbps", "gigabytesPerDay", "retentionDays", "worstDays", "triggersPerDay"},
		"pools":     {"id", "usableGB", "gigabytesPerDay", "retentionDays", "worstDays"},
		"recorders": {"id", "averageMbps", "intakeMbps"},
		"messages":  {"id", "perDay", "heldBackPerDay"},
		"outputs":   {"id", "perDay", "onPercent"},
		"monitors":  {"id", "perDay", "onPercent", "cutShortPercent"},
		"offsite":   {"gigabytesPerDay", "worstWaitSeconds"},
	} {
		first := map[string][]map[string]any{"channels": figures.Channels, "pools": figures.Pools, "recorders": figures.Recorders,
			"messages": figures.Messages, "outputs": figures.Outputs, "monitors": figures.Monitors, "offsite": {figures.Offsite}}[list][0]
		for _, name := range members {
			if _, ok := first[name]; !ok {
				t.Errorf("%s have no %s", list, name)
			}
		}
	}
}

func TestFilesThatAreNoPlanEndWithStatus2AndOneLine(t *testing.T) {
	good := string(quay(t))
	tests := []struct{ name, data, says string }{
		{"truncated", good[:3000], "not JSON: it ends too early"},
		{"not JSON", "days: 30", "not JSON"},
		{"unknown member", strings.Replace(good, `"licences": 16`, `"licenses": 16`, 1), "recorders[0].licenses: no such member"},
		{"reference to nothing", strings.Replace(good, `"week": "hall"`, `"week": "nite"`, 1), `channels[0].week: no week "nite"`},
		{"negative rate", strings.Replace(good, `"perHour": 14`, `"perHour": -14`, 1), "is below 0"},
		{"25:00", strings.Replace(good, `"from": "05:30"`, `"from": "25:00"`, 1), `no time "25:00"`},
		{"40 MB", strings.Repeat(" ", 40<<20), "larger than 32 MiB"},
	}
	for _, command := range []string{"estimate", "check"} {
		for _, test := range tests {
			out, says, status := run(t, command, write(t, []byte(test.data)))
			if status != 2 || out != "" || strings.Count(says, "\n") != 1 || !strings.Contains(says, "plan.json: ") ||
				!strings.Contains(says, test.says) {
				t.Errorf("%s, %s: status %d, %q, %q", command, test.name, status, out, says)
			}
		}
	}
	if _, says, status := run(t, "estimate", "nowhere.json"); status != 2 || !strings.Contains(says, "nowhere.json") {
		t.Errorf("no file: status %d, %q", status, says)
	}
}

func TestCheckTellsErrorsByItsStatus(t *testing.T) {
	out, _, status := run(t, "check", write(t, quay(t)))
	lines := strings.Split(strings.TrimSpace(out), "\n")
	if status != 1 || !strings.HasPrefix(lines[0], "error") || !strings.HasPrefix(lines[len(lines)-1], "hint") {
		t.Errorf("status %d:\n%s", status, out)
	}
	p := demo.PennywhistleQuay()
	p.Channels = p.Channels[2:3] // the waiting room alone
	p.Effects, p.CallButtons, p.Messages = nil, nil, nil
	data, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	if out, _, status := run(t, "check", "--json", write(t, data)); status != 0 || strings.TrimSpace(out) != "[]" {
		t.Errorf("a sound plan: status %d, %s", status, out)
	}
}

func TestSchemaIsPrinted(t *testing.T) {
	out, _, status := run(t, "schema")
	if status != 0 || out != string(plan.Schema()) || !strings.Contains(out, "2020-12") {
		t.Errorf("status %d, %.100s", status, out)
	}
}

// TestDemoComesUpStopsAndRemembers starts the demo twice on one folder, with every variable of its settings there and empty.
func TestDemoComesUpStopsAndRemembers(t *testing.T) {
	source, err := os.ReadFile("serve.go")
	if err != nil {
		t.Fatal(err)
	}
	variables := regexp.MustCompile(`env:"(WAKEFIELD_\w+)"`).FindAllSubmatch(source, -1)
	if len(variables) < 10 {
		t.Fatalf("only %d variables are known", len(variables))
	}
	for _, v := range variables {
		t.Setenv(string(v[1]), "")
	}
	// Not t.TempDir: PostgreSQL's own user must reach the folder.
	dir, err := os.MkdirTemp("", "wakefield-demo-")
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(dir)
	if err := os.Chmod(dir, 0o755); err != nil {
		t.Fatal(err)
	}
	data := filepath.Join(dir, "postgres")
	url, stop := startDemo(t, data)
	if body := get(t, url+"/api/sites/pennywhistle-quay"); !strings.Contains(body, `"version":1,`) {
		t.Errorf("%.200s", body)
	}
	if body := get(t, url+"/api/openapi.json"); !strings.Contains(body, `"3.1.0"`) {
		t.Errorf("%.200s", body)
	}
	response, err := http.Post(url+"/api/plans/pennywhistle-quay/edits", "application/json",
		strings.NewReader(`{"version":1,"edits":[{"setAudio":{"channels":["booth"],"audioKbps":0}}]}`))
	if err != nil || response.StatusCode != 200 {
		t.Fatalf("%v, %v", response, err)
	}
	response.Body.Close()
	stop()
	if _, err := os.Stat(filepath.Join(data, "postmaster.pid")); !errors.Is(err, os.ErrNotExist) {
		t.Errorf("PostgreSQL still runs: %v", err)
	}

	url, stop = startDemo(t, data)
	if body := get(t, url+"/api/sites/pennywhistle-quay"); !strings.Contains(body, `"version":2,`) {
		t.Errorf("the second time: %.200s", body)
	}
	stop()
	url, stop = startDemo(t, data, "--reset", "--yes")
	if body := get(t, url+"/api/sites/pennywhistle-quay"); !strings.Contains(body, `"version":1,`) {
		t.Errorf("after a reset: %.200s", body)
	}
	stop()
}

// startDemo starts the demo and waits for its address. The function returned stops
// it as Ctrl+C does.
func startDemo(t *testing.T, data string, flags ...string) (url string, stop func()) {
	t.Helper()
	cmd := exec.Command(program, append([]string{"demo", "--listen", "127.0.0.1:0", "--data", data}, flags...)...)
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	watchdog := time.AfterFunc(2*time.Minute, func() { cmd.Process.Kill() })
	address := regexp.MustCompile(`https?://\S+`)
	for lines := bufio.NewScanner(out); url == "" && lines.Scan(); {
		url = address.FindString(lines.Text())
	}
	if url == "" {
		t.Fatal("the demo printed no address")
	}
	go io.Copy(io.Discard, out)
	return url, func() {
		t.Helper()
		if err := cmd.Process.Signal(syscall.SIGINT); err != nil {
			t.Fatal(err)
		}
		if err := cmd.Wait(); err != nil {
			t.Errorf("after Ctrl+C: %v", err)
		}
		watchdog.Stop()
	}
}

func get(t *testing.T, url string) string {
	t.Helper()
	response, err := http.Get(url)
	// While a backup is exchanged for what was there the database is away for a moment.
	for tries := 0; err == nil && response.StatusCode == 503 && tries < 200; tries++ {
		response.Body.Close()
		time.Sleep(50 * time.Millisecond)
		response, err = http.Get(url)
	}
	if err != nil {
		t.Fatal(err)
	}
	defer response.Body.Close()
	body, err := io.ReadAll(response.Body)
	if err != nil || response.StatusCode != 200 {
		t.Fatalf("%s: %d, %v", url, response.StatusCode, err)
	}
	return string(body)
}
