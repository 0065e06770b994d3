//go:build soak

package soak

import (
	"archive/zip"
	"bufio"
	"bytes"
	"context"
	"crypto/rand"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"io"
	mathrand "math/rand/v2"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
)

const (
	editors = 50
	streams = 200
	site    = "saltmarsh-tram-depot"
)

// length is how long the load lasts; WAKEFIELD_SOAK says otherwise.
func length(t *testing.T) time.Duration {
	text := os.Getenv("WAKEFIELD_SOAK")
	if text == "" {
		return time.Minute
	}
	d, err := time.ParseDuration(text)
	if err != nil {
		t.Fatal(err)
	}
	return d
}

// wakefield is the program under load.
type wakefield struct {
	*testing.T
	program, data  string
	log            *os.File // what the program says
	address, debug string
	cmd            *exec.Cmd

	second string // address of another server on the same database

	// held while a backup is taken, so that each change is in it or not
	gate sync.RWMutex
	late bool // whether the backup was taken

	mutex   sync.Mutex
	away    []window // when the database was away
	acked   map[string]acked
	last    [editors]int // the last value acknowledged
	sent    [editors]int // the last value sent
	tally   map[string]int
	wrong   []string
	heard   atomic.Int64
	pid     atomic.Int64
	largest atomic.Int64 // resident memory, kB
}

type window struct{ from, to time.Time }

// acked is a change that was acknowledged.
type acked struct {
	editor int
	mark   string // of the history that it was made on
	late   bool   // whether it was made after the backup
}

func TestSoak(t *testing.T) {
	w := &wakefield{T: t, acked: make(map[string]acked), tally: make(map[string]int)}
	dir, remove := pgtest.Folder()
	t.Cleanup(remove)
	w.data, w.program = filepath.Join(dir, "postgres"), filepath.Join(dir, "wakefield")
	w.address, w.debug, w.second = free(t), free(t), free(t)
	var err error
	if w.log, err = os.CreateTemp("", "wakefield-soak-*.log"); err != nil {
		t.Fatal(err)
	}
	t.Log("the program's log is ", w.log.Name())
	if out, err := exec.Command("go", "build", "-o", w.program, "wakefield.example/cmd/wakefield").CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	w.start()
	defer func() { w.kill(syscall.SIGTERM) }()
	first := w.get("/api/plans/" + site + "/file")
	other := exec.Command(w.program, "serve", "--open", "--listen", w.second)
	other.Env = append(os.Environ(), "WAKEFIELD_DATABASE="+localpg.At(w.data).URL("wakefield"))
	other.Stderr = w.log
	other.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
	if err := other.Start(); err != nil {
		t.Fatal(err)
	}
	defer func() { other.Process.Kill(); other.Wait() }()

	load, stop := context.WithTimeout(context.Background(), length(t))
	defer stop()
	var group sync.WaitGroup
	for i := range editors {
		group.Go(func() { w.edit(load, i) })
	}
	for range streams {
		group.Go(func() { w.listen(load) })
	}
	group.Go(func() { w.attack(load) })
	group.Go(func() { w.observe(load) })
	group.Go(func() { w.vary(load) })
	kills := w.disturb(load)
	group.Wait()
	w.verify(first, kills)
}

func free(t *testing.T) string {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	return l.Addr().String()
}

// start starts the program and waits until changes can be kept.
func (w *wakefield) start() {
	w.cmd = exec.Command(w.program, "demo", "--listen", w.address, "--debug", w.debug, "--data", w.data)
	w.cmd.Stderr = w.log
	w.cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
	if err := w.cmd.Start(); err != nil {
		w.Fatal(err)
	}
	w.pid.Store(int64(w.cmd.Process.Pid))
	w.untilReady()
}

func (w *wakefield) untilReady() {
	for end := time.Now().Add(time.Minute); time.Now().Before(end); time.Sleep(50 * time.Millisecond) {
		if response, err := http.Get("http://" + w.address + "/readyz"); err == nil {
			response.Body.Close()
			if response.StatusCode == 200 {
				return
			}
		}
	}
	w.Fatal("it is not ready after a minute")
}

func (w *wakefield) kill(signal syscall.Signal) {
	w.cmd.Process.Signal(signal)
	w.cmd.Wait()
}

func (w *wakefield) get(path string) string {
	response, err := http.Get("http://" + w.address + path)
	if err != nil {
		w.Fatal(err)
	}
	defer response.Body.Close()
	body, err := io.ReadAll(response.Body)
	if err != nil || response.StatusCode != 200 {
		w.Fatalf("%s: %d, %v", path, response.StatusCode, err)
	}
	return string(body)
}

// call makes a request; status 0 is a connection that failed.
func (w *wakefield) call(path, body, key string) (status int, answer []byte) {
	return w.ask("POST", w.address, path, body, key)
}

func (w *wakefield) ask(method, address, path, body, key string) (status int, answer []byte) {
	begun := time.Now()
	request, _ := http.NewRequest(method, "http://"+address+path, strings.NewReader(body))
	request.Header.Set("Content-Type", "application/json")
	if key != "" {
		request.Header.Set("Idempotency-Key", key)
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return 0, nil
	}
	defer response.Body.Close()
	answer, err = io.ReadAll(response.Body)
	if err != nil {
		return 0, nil
	}
	w.mutex.Lock()
	defer w.mutex.Unlock()
	w.tally[strconv.Itoa(response.StatusCode)]++
	if response.StatusCode >= 500 && !(response.StatusCode == 503 && w.wasAway(begun, time.Now())) {
		w.wrong = append(w.wrong, fmt.Sprintf("%s: %d at %s: %.300s", path, response.StatusCode, begun.Format(time.TimeOnly), answer))
	}
	return response.StatusCode, answer
}

// wasAway tells whether the database was away at some time between two moments.
func (w *wakefield) wasAway(from, to time.Time) bool {
	for _, a := range w.away {
		if from.Before(a.to.Add(2*time.Second)) && to.After(a.from) {
			return true
		}
	}
	return false
}

// edit changes one channel again and again, each change sent until it is acknowledged.
func (w *wakefield) edit(ctx context.Context, i int) {
	channel := fmt.Sprintf("c%d-%d", i%6+1, i/6+1)
	address := []string{w.address, w.second}[i%2]
	version, mark := int64(1), ""
	for value := 1; ctx.Err() == nil; value++ {
		key := rand.Text()
		w.sent[i] = value
		body := fmt.Sprintf(`{"version":%d,"mark":%q,"edits":[{"setAudio":{"channels":[%q],"audioKbps":%d}}]}`, version, mark, channel, value)
		for {
			w.gate.RLock()
			late := w.late
			status, answer := w.ask("POST", address, "/api/plans/"+site+"/edits", body, key)
			w.gate.RUnlock()
			var a struct {
				Version  int64
				Mark     string
				Restored bool
			}
			_ = json.Unmarshal(answer, &a) // a failed connection has none
			if status == 200 {
				w.mutex.Lock()
				w.acked[key] = acked{i, a.Mark, late}
				w.mutex.Unlock()
				w.last[i] = value
				version, mark = a.Version, a.Mark
				break
			}
			if status == 409 && a.Restored { // a backup was restored: it is made anew on what is there
				if status, answer := w.ask("GET", address, "/api/plans/"+site+"/version", "", ""); status == 200 && json.Unmarshal(answer, &a) == nil {
					version, mark, key = a.Version, a.Mark, rand.Text()
					body = fmt.Sprintf(`{"version":%d,"mark":%q,"edits":[{"setAudio":{"channels":[%q],"audioKbps":%d}}]}`, version, mark, channel, value)
				}
				continue
			}
			if status == 409 || status == 422 || status == 400 {
				w.mutex.Lock()
				w.wrong = append(w.wrong, fmt.Sprintf("editor %d, alone on %s: %d: %.300s", i, channel, status, answer))
				w.mutex.Unlock()
				return
			}
			time.Sleep(100 * time.Millisecond) // to be sent again with the same key
			if ctx.Err() != nil {
				return
			}
		}
	}
}

// listen follows the changes, and connects anew when the stream ends.
func (w *wakefield) listen(ctx context.Context) {
	for ctx.Err() == nil {
		request, _ := http.NewRequestWithContext(ctx, "GET", "http://"+w.address+"/api/changes", nil)
		if response, err := http.DefaultClient.Do(request); err == nil {
			for lines := bufio.NewScanner(response.Body); lines.Scan(); {
				if strings.HasPrefix(lines.Text(), "event: change") {
					w.heard.Add(1)
				}
			}
			response.Body.Close()
		}
		time.Sleep(200 * time.Millisecond)
	}
}

// attack sends files that are made to cost much.
func (w *wakefield) attack(ctx context.Context) {
	hostile := []struct{ path, body string }{
		{"/api/plans/" + site + "/special-days/read", "BEGIN:VCALENDAR\n" + strings.Repeat("BEGIN:VEVENT\n", 20_000)},
		{"/api/plans/" + site + "/table/read", strings.Repeat("a,", 1<<20)},
		{"/api/plans/" + site + "/log/read", strings.Repeat("1\n", 15<<20)},
		{"/api/streams/clip", `{"seconds":[` + strings.Repeat("[],", 7<<20) + `1]}`},
		{"/api/sites", strings.Repeat("[", 20<<20)},
		{"/api/plans/" + site + "/edits", `{"version":1,"edits":[{"setSite":{"name":"\u0000"}}]}`},
		{"/api/plans/" + site + "/edits", `{"version":1,"edits":[{"setKeep":{"channels":["c1-1"],"keep":{"quotaGB":1e-10}}}]}`},
		{"/api/plans/a%00b/undo", `{"version":1}`},
		{"/api/sites", zipOfPictures(w.T)},
		{"/api/plans/" + site + "/edits", `{"version":1,"edits":[` + strings.Repeat("{},", 480_000) + `{}]}`},
	}
	for i := 0; ctx.Err() == nil; i++ {
		h := hostile[i%len(hostile)]
		if status, answer := w.call(h.path, h.body, ""); status == 200 {
			w.mutex.Lock()
			w.wrong = append(w.wrong, fmt.Sprintf("%s was accepted: %.200s", h.path, answer))
			w.mutex.Unlock()
		}
		// What may be asked, and takes much.
		week := "/api/plans/" + site + "/rehearse" + []string{"/odds", "/worst", "/file"}[i%3] +
			fmt.Sprintf("?from=2026-12-07&days=%d&number=%d&channel=c1-1&at=3600&kind=csv", 1+i%7, i)
		w.ask("GET", []string{w.address, w.second}[i%2], week, "", "")
		time.Sleep(200 * time.Millisecond)
	}
}

// zipOfPictures is a plan with a picture of 48 million pixels for each camera, in a few hundred kilobytes.
func zipOfPictures(t *testing.T) string {
	var flat, out bytes.Buffer
	if err := png.Encode(&flat, image.NewPaletted(image.Rect(0, 0, 8000, 6000), color.Palette{color.White, color.Black})); err != nil {
		t.Fatal(err)
	}
	p := demo.PennywhistleQuay()
	z := zip.NewWriter(&out)
	add := func(name string, data []byte) {
		w, err := z.Create(name)
		if err == nil {
			_, err = w.Write(data)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	for i := range p.Channels {
		if p.Channels[i].NoCamera {
			continue
		}
		p.Channels[i].Scene = &plan.Scene{Picture: fmt.Sprint("p", i)}
		add(fmt.Sprintf("pictures/p%d.png", i), flat.Bytes())
	}
	file, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	add("plan.json", file)
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return out.String()
}

// vary makes, adopts, removes and brings back variants of another site, through both servers.
func (w *wakefield) vary(ctx context.Context) {
	const small = "brackenhall-cider-works"
	ids := []string{small}
	for i := 0; ctx.Err() == nil; i++ {
		address := []string{w.address, w.second}[i%2]
		id := ids[mathrand.IntN(len(ids))]
		switch i % 4 {
		case 0:
			var made struct{ ID string }
			if status, answer := w.ask("POST", address, "/api/sites/"+small+"/plans", `{"like":"`+small+`","name":"Another"}`,
				rand.Text()); status == 201 && json.Unmarshal(answer, &made) == nil {
				ids = append(ids, made.ID)
			}
		case 1:
			w.ask("PUT", address, "/api/sites/"+small+"/adopted", `{"plan":"`+id+`"}`, "")
		default:
			w.ask("POST", address, "/api/sites/"+small+"/plans/"+id+"/removed", fmt.Sprintf(`{"removed":%v}`, i%4 == 2), "")
		}
		time.Sleep(50 * time.Millisecond)
	}
}

// restore takes a backup, lets people work on, and brings the backup back under both servers and all who work.
func (w *wakefield) restore() {
	file := filepath.Join(filepath.Dir(w.data), "backup")
	w.gate.Lock()
	if out, err := exec.Command(w.program, "backup", "--data", w.data, file).CombinedOutput(); err != nil {
		w.Errorf("backup: %v: %s", err, out)
	}
	w.late = true
	w.gate.Unlock()
	time.Sleep(2 * time.Second)
	w.mutex.Lock()
	w.away = append(w.away, window{time.Now(), time.Now().Add(time.Hour)})
	w.mutex.Unlock()
	if out, err := exec.Command(w.program, "restore", "--data", w.data, "--yes", file).CombinedOutput(); err != nil {
		w.Errorf("restore: %v: %s", err, out)
	}
	w.untilReady()
	w.mutex.Lock()
	w.away[len(w.away)-1].to = time.Now()
	w.mutex.Unlock()
}

// observe notes the largest memory of the program.
func (w *wakefield) observe(ctx context.Context) {
	for ctx.Err() == nil {
		w.largest.Store(max(w.largest.Load(), w.resident()))
		time.Sleep(100 * time.Millisecond)
	}
}

// resident is the memory of the program, in kB.
func (w *wakefield) resident() int64 {
	status, _ := os.ReadFile(fmt.Sprintf("/proc/%d/status", w.pid.Load()))
	for line := range strings.Lines(string(status)) {
		if rest, ok := strings.CutPrefix(line, "VmRSS:"); ok {
			n, _ := strconv.ParseInt(strings.Fields(rest)[0], 10, 64)
			return n
		}
	}
	return 0
}

// disturb kills the server and the database in turn, at times nobody knows, until the
// last third of the load.
func (w *wakefield) disturb(ctx context.Context) (kills int) {
	end, _ := ctx.Deadline()
	last := end.Add(-length(w.T) / 3)
	for {
		if kills == 2 && !w.late {
			w.restore()
		}
		time.Sleep(3*time.Second + time.Duration(mathrand.IntN(4000))*time.Millisecond)
		if time.Now().After(last) {
			return kills
		}
		w.mutex.Lock()
		w.away = append(w.away, window{time.Now(), end.Add(time.Hour)})
		w.mutex.Unlock()
		if kills%2 == 0 {
			read, _ := os.ReadFile(filepath.Join(w.data, "postmaster.pid"))
			if pid, _ := strconv.Atoi(strings.SplitN(string(read), "\n", 2)[0]); pid > 0 {
				syscall.Kill(pid, syscall.SIGKILL)
			}
			time.Sleep(time.Second) // until its children have noticed
			w.untilReady()
		} else {
			w.kill(syscall.SIGKILL)
			w.start()
		}
		w.mutex.Lock()
		w.away[len(w.away)-1].to = time.Now()
		w.mutex.Unlock()
		kills++
	}
}

func (w *wakefield) verify(first string, kills int) {
	for _, wrong := range w.wrong[:min(len(w.wrong), 20)] {
		w.Error(wrong)
	}
	w.untilReady()
	ctx := context.Background()
	conn, err := pgx.Connect(ctx, localpg.At(w.data).URL("wakefield")+pgtest.SeesAll)
	if err != nil {
		w.Fatal(err)
	}
	defer conn.Close(ctx)

	rows, _ := conn.Query(ctx, `select key from request where plan = $1`, site)
	stored, err := pgx.CollectRows(rows, pgx.RowTo[string])
	if err != nil {
		w.Fatal(err)
	}
	there := make(map[string]bool)
	for _, key := range stored {
		there[key] = true
	}
	var mark string
	if err := conn.QueryRow(ctx, `select mark from plan where id = $1`, site).Scan(&mark); err != nil {
		w.Fatal(err)
	}
	gone := 0
	for key, a := range w.acked {
		// Between the backup and its return changes were made that are gone with that history.
		if should := !a.late || a.mark == mark; should != there[key] {
			w.Errorf("a change of editor %d (after the backup: %v, on the history that is there: %v) is there: %v", a.editor, a.late,
				a.mark == mark, there[key])
		} else if !should {
			gone++
		}
	}
	var bad int
	if err := conn.QueryRow(ctx,
		`select count(*) from site s join plan p on p.id = s.adopted where p.removed_at is not null`).Scan(&bad); err != nil || bad > 0 {
		w.Errorf("%d sites have an adopted plan that was taken away, %v", bad, err)
	}
	if len(there) != len(stored) {
		w.Errorf("%d changes are stored %d times", len(there), len(stored))
	}
	var version, revisions int64
	if err := conn.QueryRow(ctx, `select version, (select count(*) from revision where plan = id) from plan where id = $1`,
		site).Scan(&version, &revisions); err != nil || version != revisions {
		w.Errorf("version %d, %d revisions: a change is half there; %v", version, revisions, err)
	}
	var plan struct {
		Channels []struct {
			ID        string
			AudioKbps int
		}
	}
	if err := json.Unmarshal([]byte(w.get("/api/plans/"+site+"/file")), &plan); err != nil {
		w.Fatal(err)
	}
	audio := make(map[string]int)
	for _, c := range plan.Channels {
		audio[c.ID] = c.AudioKbps
	}
	for i := range editors {
		channel := fmt.Sprintf("c%d-%d", i%6+1, i/6+1)
		if got := audio[channel]; got != w.last[i] && got != w.sent[i] {
			w.Errorf("%s has %d; the last acknowledged was %d, the last sent %d", channel, got, w.last[i], w.sent[i])
		}
	}
	// All of it undone: the patches back lead to where it began.
	status, answer := w.call("/api/plans/"+site+"/return", fmt.Sprintf(`{"version":%d,"revision":1}`, version), rand.Text())
	if status != 200 {
		w.Errorf("returning to the beginning: %d: %.300s", status, answer)
	} else if w.get("/api/plans/"+site+"/file") != first {
		w.Error("the patches back do not lead to where it began")
	}

	time.Sleep(65 * time.Second) // rehearsals are remembered for a minute
	loaded := w.settled()
	w.kill(syscall.SIGTERM)
	w.start()
	w.get("/api/sites/" + site)
	fresh := w.settled()
	if loaded > fresh+64<<20 {
		w.Errorf("%d MB are held after the load, %d MB by a fresh server", loaded>>20, fresh>>20)
	}
	w.Logf("%v: %d changes acknowledged over %d kills, none lost, none half, %d gone with the history that a backup replaced; answers by status %v; %d changes heard on %d streams; largest resident memory %d MB; heap after the load %d MB, of a fresh server %d MB",
		length(w.T), len(w.acked), kills, gone, w.tally, w.heard.Load(), streams, w.largest.Load()>>10, loaded>>20, fresh>>20)
}

// settled is the heap in use once there is nothing more to do and garbage is collected.
func (w *wakefield) settled() int64 {
	time.Sleep(3 * time.Second)
	for range 3 { // pools of buffers outlive a collection or two
		response, err := http.Get("http://" + w.debug + "/debug/pprof/heap?gc=1")
		if err != nil {
			w.Fatal(err)
		}
		io.Copy(io.Discard, response.Body)
		response.Body.Close()
	}
	for line := range strings.Lines(w.get("/metrics")) {
		if text, ok := strings.CutPrefix(line, "go_memstats_heap_alloc_bytes "); ok {
			f, _ := strconv.ParseFloat(strings.TrimSpace(text), 64)
			return int64(f)
		}
	}
	w.Fatal("the metrics do not tell the heap")
	return 0
}
