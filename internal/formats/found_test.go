package formats

import (
	"bytes"
	"context"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// yard is a plan of three cameras on one recorder.
func foundPlan() *plan.Plan {
	p := &plan.Plan{Format: plan.Format, Name: "Yard", Site: plan.Site{Name: "Yard", TimeZone: "Europe/Dublin"}}
	p.Recorders = []plan.Recorder{{ID: "r", Name: "R", Channels: 4, IngestMbps: 100, Pools: []plan.Pool{{ID: "p", Name: "P"}}}}
	for i, name := range []string{"Gate", "Hall", "Ramp, north"} {
		p.Channels = append(p.Channels, plan.Channel{ID: fmt.Sprintf("c%d", i+1), Number: i + 1, Name: name, Recorder: "r", Pool: "p",
			PreSeconds: 5, PostSeconds: 20, Streams: plan.Streams{Main: plan.PlainStream(plan.Main)}, Week: plan.WeekRef{Named: "w"}})
	}
	p.Weeks = []plan.Week{{ID: "w", Name: "W"}}
	return p
}

func readFound(t *testing.T, text string, ask FoundAsk) *Found {
	t.Helper()
	if ask.Zone == nil {
		ask.Zone = dublin(t)
	}
	if ask.On.IsZero() {
		ask.On = time.Date(2026, 11, 16, 12, 0, 0, 0, dublin(t))
	}
	f, err := ReadFound(context.Background(), []byte(text), foundPlan(), ask)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

func TestALogOfSeveralChannelsIsFound(t *testing.T) {
	f := readFound(t, `start,end,channel
2026-10-05 08:00:00,2026-10-05 08:00:10,Gate
2026-10-05 08:00:00,2026-10-05 08:00:10,Gate
2026-10-05 08:00:05,2026-10-05 08:00:25,ch 1
2026-10-06 23:10:00,2026-10-06 23:10:30,2
2026-10-06 23:30:00,2026-10-06 23:30:30,Cellar
yesterday,2026-10-06 23:30:30,2
`, FoundAsk{})
	if f.As != FoundTriggers || f.Twice != 1 || f.LeftOut != 1 || len(f.Channels) != 4 || len(f.Data.Logs) != 2 {
		t.Fatalf("%+v", f)
	}
	if c := f.Channels[0]; c.Text != "Cellar" || c.Channel != "" {
		t.Errorf("first stands %+v", c)
	}
	gate := f.Data.Logs[0]
	if gate.Channel != "c1" || gate.N() != 2 || gate.Days != 2 || gate.Counts[8] != 2 || gate.Overlaps != 1 || gate.Seconds != 30 ||
		gate.Shortest != 10 {
		t.Errorf("%+v", gate)
	}
	if f.From.String() != "2026-10-05" || f.To.String() != "2026-10-06" {
		t.Errorf("%v to %v", f.From, f.To)
	}
	said := readFound(t, "start,channel\n2026-10-05 08:00,Cellar\n2026-10-05 09:00,Gate\n",
		FoundAsk{Channels: map[string]string{"Cellar": "c3",
			"Gate": ""}})
	if len(said.Data.Logs) != 1 || said.Data.Logs[0].Channel != "c3" {
		t.Errorf("%+v", said.Data.Logs)
	}
	recorded := readFound(t, "recorded from,to,camera\n2026-10-05 08:00:00,2026-10-05 08:00:40,Gate\n", FoundAsk{})
	if recorded.As != FoundRecordings || recorded.Data.Logs[0].Kind != "recordings" {
		t.Errorf("%+v", recorded)
	}
	pairs := readFound(t, "time,camera,event\n2026-10-05 08:00:00,Gate,motion start\n2026-10-05 08:00:07,Gate,motion stop\n", FoundAsk{})
	if l := pairs.Data.Logs[0]; l.N() != 1 || l.Seconds != 7 {
		t.Errorf("%+v", l)
	}
}

// TestAColumnIsTheChannelsByWhatStandsInIt reads headings of another language, and a log of one channel that names none.
func TestAColumnIsTheChannelsByWhatStandsInIt(t *testing.T) {
	f := readFound(t, "Startzeit;Ende;Kamera\n05.10.2026 08:00:00;05.10.2026 08:00:10;Gate\n05.10.2026 09:00:00;05.10.2026 09:00:10;Gate\n",
		FoundAsk{})
	if len(f.Data.Logs) != 1 || f.Data.Logs[0].Channel != "c1" || f.Data.Logs[0].N() != 2 {
		t.Errorf("%+v", f)
	}
	rates := readFound(t, "Zeit;Kanal;kbit/s\n05.10.2026 08:00;1;3.100,5\n05.10.2026 09:00;1;3200\n", FoundAsk{})
	if len(rates.Data.Rates) != 1 || rates.Data.Rates[0].Hours[0].Kbps != 3100.5 {
		t.Errorf("%+v", rates)
	}
	alone := readFound(t, "start,end\n2026-10-05 08:00:00,2026-10-05 08:00:10\n", FoundAsk{})
	if len(alone.Channels) != 1 || alone.Channels[0].Text != "" || len(alone.Data.Logs) != 0 || len(alone.Notes) == 0 {
		t.Errorf("%+v", alone)
	}
	said := readFound(t, "start,end\n2026-10-05 08:00:00,2026-10-05 08:00:10\n", FoundAsk{Channels: map[string]string{"": "c2"}})
	if len(said.Data.Logs) != 1 || said.Data.Logs[0].Channel != "c2" {
		t.Errorf("%+v", said)
	}
}

// TestTheHourThatComesTwiceIsOne counts in the night on which clocks go back.
func TestTheHourThatComesTwiceIsOne(t *testing.T) {
	f := readFound(t, "start,channel\n2026-10-25T00:30:00Z,Gate\n2026-10-25T01:30:00Z,Gate\n2026-10-25T02:30:00Z,Gate\n", FoundAsk{})
	if c := f.Data.Logs[0].Counts; c[1] != 2 || c[2] != 1 {
		t.Errorf("%v", c[:4])
	}
}

func TestBitratesAreFound(t *testing.T) {
	f := readFound(t,
		"time;channel;Mbit/s\n2026-10-05 08:00;Gate;2,5\n2026-10-05 09:00;Gate;3,5\n2026-10-12 08:00;Gate;4,5\n2026-10-05 08:00;2;x\n",
		FoundAsk{})
	if f.As != FoundRates || f.LeftOut != 1 || len(f.Data.Rates) != 1 {
		t.Fatalf("%+v", f)
	}
	r := f.Data.Rates[0]
	if r.Channel != "c1" || len(r.Hours) != 2 || r.Hours[0].Hour != 8 || r.Hours[0].N != 2 || r.Hours[0].Kbps != 7000 ||
		r.To.String() != "2026-10-12" {
		t.Errorf("%+v", r)
	}
}

// TestBitratesOfCommasAreReadAsTheyMean reads 1.500 among bitrates whose fractions stand behind a comma, and 1,125.
func TestBitratesOfCommasAreReadAsTheyMean(t *testing.T) {
	f := readFound(t, "time;channel;Mbit/s\n2026-10-05 08:00;Gate;2,5\n2026-10-05 09:00;Gate;1.500\n2026-10-05 10:00;Gate;1,125\n", FoundAsk{})
	if f.LeftOut != 1 || len(f.Bad) != 1 || !strings.Contains(f.Bad[0].Reason, "write “1500” or “1,500”") {
		t.Fatalf("%+v", f.Bad)
	}
	if r := f.Data.Rates[0]; len(r.Hours) != 2 || r.Hours[1].Kbps != 1125 {
		t.Errorf("%+v", r)
	}
}

// TestOldestFootageAsPeopleSayIt reads sentences and tables.
func TestOldestFootageAsPeopleSayIt(t *testing.T) {
	for _, text := range []string{
		"channel 3 goes back to 12 Oct", "Channel 3: 12.10.", "3 back to October 12", "Ramp, north goes back to Mon 12 Oct 2026",
		"c3 since 12/10/2026", "cam 3 oldest 2026-10-12",
		"date,channel,oldest\n16 Nov 2026,3,12 Oct\n", "channel;oldest\n3;12.10.2026\n",
	} {
		f := readFound(t, text, FoundAsk{})
		if f.As != FoundOldest || len(f.Data.Oldest) != 1 {
			t.Errorf("%q: %+v", text, f)
			continue
		}
		o := f.Data.Oldest[0]
		if o.Channel != "c3" || o.Oldest.In(dublin(t)).Format("2006-01-02") != "2026-10-12" || o.Within != 1 || o.On.In(dublin(t)).Day() != 16 {
			t.Errorf("%q: %+v", text, o)
		}
	}
	if f := readFound(t, "channel 3 goes back to 12 Oct 07:30", FoundAsk{}); f.Data.Oldest[0].Within > 0.1 ||
		f.Data.Oldest[0].Oldest.In(dublin(t)).Hour() != 7 {
		t.Errorf("%+v", f.Data.Oldest)
	}
	if f := readFound(t, "channel 3 goes back to 24 Dec", FoundAsk{}); f.Data.Oldest[0].Oldest.In(dublin(t)).Year() != 2025 {
		t.Errorf("%+v", f.Data.Oldest)
	}
	for _, text := range []string{"channel 3 goes back to 31 Nov", "channel 3 goes back to 12 Oxt", "channel 3 goes back to 20 Nov 2026"} {
		if _, err := ReadFound(context.Background(), []byte(text), foundPlan(), FoundAsk{As: FoundOldest, Zone: dublin(t),
			On: time.Date(2026, 11, 16, 12, 0, 0, 0, dublin(t))}); err == nil {
			t.Errorf("%q is read", text)
		}
	}
}

func TestSettingsAreFound(t *testing.T) {
	f := readFound(t, "No.,Name,Pre-event (s),Post-event (s),Colour\n1,Gate,5,30,red\n9,Cellar,5,20,\n", FoundAsk{})
	if f.As != FoundSettings || len(f.Data.Settings) != 2 || f.LeftOut != 1 || f.Channels[0].Says != "1 setting otherwise than planned" {
		t.Fatalf("%+v", f)
	}
	if s := f.Data.Settings[1]; s.Channel != "c1" || s.Column != "post" || s.Text != "30" {
		t.Errorf("%+v", s)
	}
}

// TestWhatIsNoneOfTheseSaysWhy names the place, or the limit.
func TestWhatIsNoneOfTheseSaysWhy(t *testing.T) {
	for text, want := range map[string]string{
		"":               "the file is empty",
		"hello\nworld\n": "no column has times",
		"start,channel\n2020-01-01 08:00,Gate\n2026-01-01 08:00,Gate\n": "up to 800 days",
		strings.Repeat("2026-10-05 08:00:00,Gate\n", 1_000_001):         "more than 1000000 lines",
	} {
		_, err := ReadFound(context.Background(), []byte(text), foundPlan(), FoundAsk{Zone: dublin(t), On: time.Unix(1.8e9, 0)})
		if err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%.40q: %v, want %q", text, err, want)
		}
	}
}

func TestDatesAsPeopleTypeThem(t *testing.T) {
	now := week.Date{Year: 2026, Month: 11, Day: 16}
	for text, want := range map[string]string{
		"12 Oct": "2026-10-12", "12th of October": "2026-10-12", "Oct 12": "2026-10-12", "october 12, 2025": "2025-10-12",
		"12.10.": "2026-10-12", "12.10.26": "2026-10-12", "12/10": "2026-10-12", "2026/10/12": "2026-10-12", "1 sept": "2026-09-01",
		"29 Feb": "2024-02-29", "17 Nov": "2025-11-17", "16 Nov": "2026-11-16", "Tue 3 Nov 14:05": "2026-11-03",
	} {
		d, err := readSpoken(text, now)
		if err != nil || d.date.String() != want {
			t.Errorf("%q: %v, %v", text, d.date, err)
		}
	}
	for _, text := range []string{"", "soon", "31 Nov", "12 Foo", "13/13/2026", "12 Oct 25:00"} {
		if d, err := readSpoken(text, now); err == nil {
			t.Errorf("%q is %v", text, d.date)
		}
	}
}

func FuzzFound(f *testing.F) {
	for _, text := range []string{"start,end,channel\n2026-10-05 08:00:00,2026-10-05 08:00:10,Gate\n", "channel 3 goes back to 12 Oct",
		"time;channel;kbps\n2026-10-05 08:00;Gate;2\n", "No.,Name,Pre-event (s)\n1,Gate,5\n", "channel,oldest\n3,29 Feb\n"} {
		f.Add([]byte(text), "")
	}
	f.Add([]byte("a,b\n"), "settings")
	p := foundPlan()
	f.Fuzz(func(t *testing.T, data []byte, as string) {
		switch as {
		case "", FoundTriggers, FoundRecordings, FoundRates, FoundOldest, FoundSettings:
		default:
			as = ""
		}
		found, err := ReadFound(t.Context(), data, p, FoundAsk{As: as, Zone: time.UTC, On: time.Unix(1_794_800_000, 0)})
		if err != nil {
			return
		}
		for _, l := range found.Data.Logs {
			if p.Channel(l.Channel) == nil || len(l.Counts) != 24*l.Days {
				t.Errorf("%+v", l)
			}
		}
		for _, o := range found.Data.Oldest {
			if !o.Oldest.Before(o.On) || p.Channel(o.Channel) == nil {
				t.Errorf("%+v", o)
			}
		}
	})
}

// BenchmarkMillion reads a log of a million lines.
func BenchmarkMillion(b *testing.B) {
	var text bytes.Buffer
	text.WriteString("start,end,channel\n")
	rng := rand.New(rand.NewPCG(1, 2))
	at := time.Date(2026, 10, 5, 0, 0, 0, 0, time.UTC)
	for range 999_999 {
		at = at.Add(time.Duration(rng.IntN(7)) * time.Second)
		fmt.Fprintf(&text, "%s,%s,%d\n", at.Format(time.DateTime), at.Add(time.Duration(3+rng.IntN(40))*time.Second).Format(time.DateTime),
			1+rng.IntN(3))
	}
	b.SetBytes(int64(text.Len()))
	for b.Loop() {
		f, err := ReadFound(context.Background(), text.Bytes(), foundPlan(), FoundAsk{Zone: time.UTC, On: at})
		if err != nil || len(f.Data.Logs) != 3 {
			b.Fatal(err)
		}
	}
}
