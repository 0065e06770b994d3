package main

import (
	"bufio"
	"encoding/json"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
)

// TestAStandInSaysWhereItIs starts one as a program, reads its line, and asks it what everybody may.
func TestAStandInSaysWhereItIs(t *testing.T) {
	dir := t.TempDir()
	password := filepath.Join(dir, "password")
	if err := os.WriteFile(password, []byte("secret\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	c := exec.CommandContext(t.Context(), program, "stand-in", "--channels", "5", "--password-file", password, "--discover", "127.0.0.1:0",
		"--state", filepath.Join(dir, "state.json"), "--quirk", "grid")
	out, err := c.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := c.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { c.Process.Kill(); c.Wait() })
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		t.Fatal(err)
	}
	var at struct {
		HTTP, RTSP, Discovery string
		Channels              int
	}
	if err := json.Unmarshal([]byte(line), &at); err != nil || at.Channels != 5 || !strings.HasPrefix(at.RTSP, "rtsp://127.0.0.1:") ||
		at.Discovery == "" {
		t.Fatalf("%s: %v", line, err)
	}
	answer, err := http.Post(at.HTTP+"/onvif/device_service", "application/soap+xml", strings.NewReader(
		`<s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope"><s:Body><GetSystemDateAndTime xmlns="http://www.onvif.org/ver10/device/wsdl"/></s:Body></s:Envelope>`))
	if err != nil {
		t.Fatal(err)
	}
	answer.Body.Close()
	if answer.StatusCode != http.StatusOK {
		t.Error(answer.Status)
	}
}
