package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"

	"wakefield.example/core/measured"
)

// files writes a log of the kiosk, at which twice as much happens as planned, its bitrates, and how far footage goes back.
func files(t *testing.T) (log, rates, oldest string) {
	t.Helper()
	dir := t.TempDir()
	write := func(name, text string) string {
		file := filepath.Join(dir, name)
		if err := os.WriteFile(file, []byte(text), 0o644); err != nil {
			t.Fatal(err)
		}
		return file
	}
	var events, kbps strings.Builder
	events.WriteString("start,end,channel\n2026-10-05 00:00:00,2026-10-05 00:00:09,Cellar\n")
	kbps.WriteString("time,channel,kbps\n")
	rng := rand.New(rand.NewPCG(8, 8))
	from := time.Date(2026, 10, 5, 0, 0, 0, 0, time.UTC)
	for at := from; at.Before(from.AddDate(0, 0, 21)); at = at.Add(time.Duration(rng.ExpFloat64()*220) * time.Second) {
		fmt.Fprintf(&events, "%s,%s,12\n", at.Format(time.DateTime), at.Add(time.Duration(rng.ExpFloat64()*40)*time.Second).Format(time.DateTime))
	}
	for h := range 48 {
		fmt.Fprintf(&kbps, "%s,12,%d\n", from.Add(time.Duration(h)*time.Hour).Format(time.DateTime), 2700+rng.IntN(50))
	}
	return write("log.csv", events.String()), write("rates.csv", kbps.String()),
		write("oldest.csv", "date,channel,oldest\n2026-11-16,12,12 Oct\n")
}

// TestMeasuredForPeopleAndPrograms compares three files with a plan, as a table and as JSON that holds to its schema.
func TestMeasuredForPeopleAndPrograms(t *testing.T) {
	plan := write(t, quay(t))
	log, rates, oldest := files(t)
	out, errors, status := run(t, "measured", plan, "--log", log, "--rates", rates, "--oldest", oldest)
	if status != 0 || !strings.Contains(out, "Kiosk front") || !strings.Contains(out, "Kiosk ×") ||
		!strings.Contains(errors, `no channel "Cellar"`) {
		t.Fatalf("%d\n%s\n%s", status, out, errors)
	}
	out, _, status = run(t, "measured", "--json", plan, "--log", log, "--rates", rates, "--oldest", oldest)
	var r measured.Result
	if err := json.Unmarshal([]byte(out), &r); status != 0 || err != nil || r.Format != measured.Format || r.Days[0].Oldest < 34 ||
		!r.Figures[0].MoreThanChance || len(r.Corrections) == 0 {
		t.Fatalf("%d, %v\n%.500s", status, err, out)
	}
	schema, _, _ := run(t, "schema", "--measured")
	doc, err := jsonschema.UnmarshalJSON(strings.NewReader(schema))
	if err != nil {
		t.Fatal(err)
	}
	c := jsonschema.NewCompiler()
	if err := c.AddResource("measured.json", doc); err != nil {
		t.Fatal(err)
	}
	compiled, err := c.Compile("measured.json")
	if err != nil {
		t.Fatal(err)
	}
	document, err := jsonschema.UnmarshalJSON(bytes.NewReader([]byte(out)))
	if err != nil {
		t.Fatal(err)
	}
	if err := compiled.Validate(document); err != nil {
		t.Error(err)
	}
	again, _, _ := run(t, "measured", "--json", plan, "--log", log, "--rates", rates, "--oldest", oldest)
	if again != out {
		t.Error("another answer for the same data")
	}
}

// TestMeasuredSaysWhatIsWrong names the file.
func TestMeasuredSaysWhatIsWrong(t *testing.T) {
	plan := write(t, quay(t))
	log, _, _ := files(t)
	large := filepath.Join(t.TempDir(), "large.csv")
	if err := os.WriteFile(large, nil, 0o644); err != nil {
		t.Fatal(err)
	}
	if err := os.Truncate(large, mostOfFile+1); err != nil {
		t.Fatal(err)
	}
	for want, args := range map[string][]string{
		"of a million lines":     {"measured", plan, "--log", large},
		"nothing was found":      {"measured", plan},
		"rates.csv":              {"measured", plan, "--log", log, "--rates", "rates.csv"},
		"no column has bitrates": {"measured", plan, "--rates", log},
		"--on":                   {"measured", plan, "--log", log, "--on", "yesterday"},
	} {
		if _, errors, status := run(t, args...); status == 0 || !strings.Contains(errors, want) {
			t.Errorf("%v: %d, %s", args, status, errors)
		}
	}
}
