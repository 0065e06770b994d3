package main

import (
	"context"
	"errors"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
)

// folder makes a data folder's path that PostgreSQL's own user can reach.
func folder(t *testing.T) string {
	t.Helper()
	dir, remove := pgtest.Folder()
	t.Cleanup(remove)
	return filepath.Join(dir, "postgres")
}

func post(t *testing.T, url, body string) {
	t.Helper()
	response, err := http.Post(url, "application/json", strings.NewReader(body))
	if err != nil {
		t.Fatal(err)
	}
	defer response.Body.Close()
	if response.StatusCode >= 300 {
		t.Fatalf("%s: %d", url, response.StatusCode)
	}
}

// TestBackupAndRestore takes a backup while the demo runs, changes and loses sites,
// and brings them back, into the same database and into another.
func TestBackupAndRestore(t *testing.T) {
	data := folder(t)
	file := filepath.Join(filepath.Dir(data), "sites.backup")
	url, stop := startDemo(t, data)
	post(t, url+"/api/plans/pennywhistle-quay/edits", `{"version":1,"edits":[{"setSite":{"name":"Quay before"}}]}`)
	if out, says, status := run(t, "backup", "--data", data, file); status != 0 || !strings.Contains(out, file) {
		t.Fatalf("backup: %d, %s %s", status, out, says)
	}
	if info, err := os.Stat(file); err != nil || info.Mode().Perm() != 0o600 {
		t.Errorf("the backup can be read by others: %v, %v", info.Mode(), err)
	}
	if _, says, status := run(t, "backup", "--data", data, file); status == 0 || !strings.Contains(says, "exists") {
		t.Errorf("a backup over another: %d, %s", status, says)
	}
	post(t, url+"/api/plans/pennywhistle-quay/edits", `{"version":2,"edits":[{"setSite":{"name":"Quay after"}}]}`)
	post(t, url+"/api/sites/brackenhall-cider-works/archive", `{"archived":true}`)
	if out, says, status := run(t, "delete", "--data", data, "--yes", "brackenhall-cider-works"); status != 0 ||
		!strings.Contains(out, "is gone") {
		t.Errorf("delete: %d, %s %s", status, out, says)
	}
	if _, says, status := run(t, "delete", "--data", data, "--yes", "pennywhistle-quay"); status == 0 ||
		!strings.Contains(says, "archive it first") {
		t.Errorf("deleting a site that is worked on: %d, %s", status, says)
	}
	if _, says, status := run(t, "restore", "--data", data, file); status == 0 ||
		!strings.Contains(says, "The 2 sites in the database now are replaced by 3 sites") {
		t.Errorf("restore without a yes: %d, %s", status, says)
	}
	if body := get(t, url+"/api/sites"); !strings.Contains(body, "Quay after") || strings.Contains(body, "Brackenhall") {
		t.Errorf("%.300s", body)
	}
	if out, says, status := run(t, "restore", "--data", data, "--yes", file); status != 0 || !strings.Contains(out, "3 sites are back") {
		t.Fatalf("restore: %d, %s %s", status, out, says)
	}
	if body := get(t, url+"/api/sites"); !strings.Contains(body, "Quay before") || !strings.Contains(body, "Brackenhall") {
		t.Errorf("after restore: %.300s", body)
	}
	stop()

	// Into a new folder, with no demo running.
	other := folder(t)
	if out, says, status := run(t, "restore", "--data", other, file); status != 0 || !strings.Contains(out, "3 sites are back") {
		t.Fatalf("restore elsewhere: %d, %s %s", status, out, says)
	}
	url, stop = startDemo(t, other)
	if body := get(t, url+"/api/plans/pennywhistle-quay/revisions"); !strings.Contains(body, "Quay before") {
		t.Errorf("%.300s", body)
	}
	stop()
	if err := os.WriteFile(file, []byte("letters"), 0o600); err != nil {
		t.Fatal(err)
	}
	if _, says, status := run(t, "restore", "--data", other, "--yes", file); status == 0 || !strings.Contains(says, "it is no backup") {
		t.Errorf("a file that is none: %d, %s", status, says)
	}
}

func TestThinAndReset(t *testing.T) {
	data := folder(t)
	url, stop := startDemo(t, data)
	for version := 1; version <= 5; version++ {
		post(t, url+"/api/plans/pennywhistle-quay/edits", `{"version":`+strconv.Itoa(version)+`,"edits":[{"setSite":{"name":"Quay `+
			strconv.Itoa(version)+`"}}]}`)
	}
	stop()
	if out, says, status := run(t, "thin", "--data", data, "--yes", "--keep", "2", "pennywhistle-quay"); status != 0 ||
		!strings.Contains(out, "Removed: 4 revisions of pennywhistle-quay") {
		t.Errorf("%d, %s %s", status, out, says)
	}
	if _, says, status := run(t, "thin", "--data", data, "nowhere"); status == 0 || !strings.Contains(says, "nowhere: no such plan") {
		t.Errorf("%d, %s", status, says)
	}
	if _, says, status := run(t, "demo", "--data", data, "--listen", "127.0.0.1:0", "--reset"); status == 0 ||
		!strings.Contains(says, "3 sites with all revisions") || !strings.Contains(says, "Quay 5, revision 6") ||
		!strings.Contains(says, "--yes") {
		t.Errorf("--reset without a yes: %d, %s", status, says)
	}
	url, stop = startDemo(t, data)
	if body := get(t, url+"/api/plans/pennywhistle-quay/revisions"); strings.Count(body, `"number"`) != 2 {
		t.Errorf("after thinning: %s", body)
	}
	stop()
}

// TestAnInterruptedFirstStart ends the demo while it makes its database.
func TestAnInterruptedFirstStart(t *testing.T) {
	data := folder(t)
	cmd := exec.Command(program, "demo", "--listen", "127.0.0.1:0", "--data", data)
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	for {
		if entries, _ := filepath.Glob(data + ".new-*/*"); len(entries) > 3 {
			break
		}
		if _, err := os.Stat(data); err == nil {
			break // it was quicker than we could look
		}
	}
	cmd.Process.Signal(syscall.SIGTERM)
	cmd.Wait()
	url, stop := startDemo(t, data)
	get(t, url+"/readyz")
	stop()
}

// TestKilledInItsFirstSecond kills the demo at some moments of its first start, so hard that it can tidy nothing up. The next
// start finds whatever is there, and comes up.
func TestKilledInItsFirstSecond(t *testing.T) {
	for _, after := range []int{50, 200, 500, 900, 1300} {
		data := folder(t)
		cmd := exec.Command(program, "demo", "--listen", "127.0.0.1:0", "--data", data)
		if err := cmd.Start(); err != nil {
			t.Fatal(err)
		}
		time.Sleep(time.Duration(after) * time.Millisecond) // wherever it is by then
		cmd.Process.Kill()
		cmd.Wait()
		url, stop := startDemo(t, data)
		if body := get(t, url+"/api/sites"); strings.Count(body, `"customer"`) != 3 {
			t.Errorf("killed after %d ms it comes up with %.300s", after, body)
		}
		stop()
	}
}

// TestAFolderIsOneByWhicheverLink runs a demo on a folder, and tries another through a link to it.
func TestAFolderIsOneByWhicheverLink(t *testing.T) {
	data := folder(t)
	_, stop := startDemo(t, data)
	defer stop()
	link := filepath.Join(filepath.Dir(data), "link")
	if err := os.Symlink(data, link); err != nil {
		t.Fatal(err)
	}
	if _, err := localpg.Open(context.Background(), link); !errors.Is(err, localpg.ErrInUse) {
		t.Errorf("through a link: %v", err)
	}
	above := filepath.Join(filepath.Dir(data), "above")
	if err := os.Symlink(filepath.Dir(data), above); err != nil {
		t.Fatal(err)
	}
	if _, err := localpg.Open(context.Background(), filepath.Join(above, filepath.Base(data))); !errors.Is(err, localpg.ErrInUse) {
		t.Errorf("through a link above it: %v", err)
	}
	if err := os.Symlink(filepath.Join(filepath.Dir(data), "nowhere"), link+"-lost"); err != nil {
		t.Fatal(err)
	}
	if _, err := localpg.Open(context.Background(), link+"-lost"); err == nil || !strings.Contains(err.Error(), "is not there") {
		t.Errorf("a link to nothing: %v", err)
	}
}

// TestTheDemoOutlivesItsPostgreSQLAndItself kills the one and the other.
func TestTheDemoOutlivesItsPostgreSQLAndItself(t *testing.T) {
	data := folder(t)
	url, stop := startDemo(t, data)
	if _, err := localpg.Open(context.Background(), data); !errors.Is(err, localpg.ErrInUse) {
		t.Errorf("a second demo on the folder: %v", err)
	}
	postmaster := func() int {
		read, _ := os.ReadFile(filepath.Join(data, "postmaster.pid"))
		pid, _ := strconv.Atoi(strings.SplitN(string(read), "\n", 2)[0])
		return pid
	}
	first := postmaster()
	if err := syscall.Kill(first, syscall.SIGKILL); err != nil {
		t.Fatal(err)
	}
	for end := time.Now().Add(time.Minute); ; time.Sleep(20 * time.Millisecond) {
		if response, err := http.Get(url + "/readyz"); err == nil {
			response.Body.Close()
			if now := postmaster(); response.StatusCode == 200 && now != 0 && now != first {
				break
			}
		}
		if time.Now().After(end) {
			t.Fatal("its PostgreSQL was not started again")
		}
	}
	stop()

	// Killed outright, and started again at once.
	for range 3 {
		cmd := exec.Command(program, "demo", "--listen", "127.0.0.1:0", "--data", data)
		out, err := cmd.StdoutPipe()
		if err != nil {
			t.Fatal(err)
		}
		if err := cmd.Start(); err != nil {
			t.Fatal(err)
		}
		buffer := make([]byte, 200)
		for said := ""; !strings.Contains(said, "http://"); {
			n, err := out.Read(buffer)
			if err != nil {
				t.Fatal("it did not come up")
			}
			said += string(buffer[:n])
		}
		cmd.Process.Kill()
		cmd.Wait()
	}
	url, stop = startDemo(t, data)
	get(t, url+"/readyz")
	stop()
}

func TestSecretsAndAddresses(t *testing.T) {
	empty := filepath.Join(t.TempDir(), "url")
	if err := os.WriteFile(empty, []byte(" \n"), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, test := range []struct {
		args []string
		says string
	}{
		{[]string{"serve"}, "no database is named"},
		{[]string{"serve", "--database", "postgres://x", "--database-file", empty}, "named twice"},
		{[]string{"serve", "--database-file", empty}, "is empty"},
		{[]string{"serve", "--database", "postgres://nobody@127.0.0.1:1/none"}, "connect"},
		{[]string{"thin", "--keep", "0", "x"}, "at least 1"},
	} {
		if _, says, status := run(t, test.args...); status == 0 || !strings.Contains(says, test.says) {
			t.Errorf("%v: %d, %s", test.args, status, says)
		}
	}
	data := folder(t)
	if _, says, status := run(t, "demo", "--data", data, "--listen", "127.0.0.1:0", "--debug", "0.0.0.0:0"); status == 0 ||
		!strings.Contains(says, "only loopback addresses") {
		t.Errorf("profiles for everybody: %d, %s", status, says)
	}
}
