package api

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/url"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/measured"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/formats"
)

// brings sends a file as it is to count.
func (c *client) brings(want int, query, text string) string {
	c.Helper()
	status, _, body := c.send("POST", "/api/plans/site/measured?"+query, text, "Content-Type", "application/octet-stream")
	if status != want {
		c.Fatalf("%d: %s", status, body)
	}
	return body
}

// kioskLog is a log of the kiosk in which so many times as much happens as planned, in the hours from 9 to 17.
func kioskLog(times float64) string {
	var b strings.Builder
	b.WriteString("start,end,channel\n")
	rng := rand.New(rand.NewPCG(4, 4))
	from := time.Date(2026, 10, 5, 0, 0, 0, 0, time.UTC)
	for at := from; at.Before(from.AddDate(0, 0, 28)); at = at.Add(time.Duration(rng.ExpFloat64()/times*450) * time.Second) {
		fmt.Fprintf(&b, "%s,%s,Kiosk front\n", at.Format(time.DateTime),
			at.Add(time.Duration(rng.ExpFloat64()*40)*time.Second).Format(time.DateTime))
	}
	return b.String()
}

// TestWhatWasFoundCountsAndIsTakenAway reads a file, lets it count, compares, corrects, and takes it away again.
func TestWhatWasFoundCountsAndIsTakenAway(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	if none := call[MeasuredSite](c, "GET", "/api/plans/site/measured", "", 200); none.Result != nil || len(none.Brought) != 0 {
		t.Fatalf("%+v", none)
	}
	if status, _, _ := c.send("GET", "/api/plans/site/measured/file", ""); status != 404 {
		t.Error(status)
	}
	status, _, body := c.send("POST", "/api/plans/site/measured/read", kioskLog(3), "Content-Type", "application/octet-stream")
	var read formats.Found
	if err := json.Unmarshal([]byte(body), &read); status != 200 || err != nil || read.As != "triggers" ||
		read.Channels[0].Channel != "kiosk" {
		t.Fatalf("%d %v %s", status, err, body)
	}
	if strings.Contains(body, "counts") {
		t.Error("the figures themselves are sent as well")
	}
	var id BroughtID
	if err := json.Unmarshal([]byte(c.brings(201, "name=kiosk.csv&as=triggers", kioskLog(3))), &id); err != nil || id.ID == "" {
		t.Fatal(err)
	}
	found := call[MeasuredSite](c, "GET", "/api/plans/site/measured", "", 200)
	if len(found.Brought) != 1 || !found.Brought[0].Counts || found.Brought[0].Channels != 1 ||
		found.Brought[0].From.String() != "2026-10-05" {
		t.Fatalf("%+v", found.Brought)
	}
	var rate *measured.Figure
	for k := range found.Result.Figures {
		if f := &found.Result.Figures[k]; f.Kind == "rate" && f.ID == "kiosk" {
			rate = f
		}
	}
	if rate == nil || !rate.MoreThanChance || rate.DaysWon >= 0 || len(rate.Edits) != 1 || len(found.Result.Corrections) == 0 {
		t.Fatalf("%+v", rate)
	}
	if file := call[measured.Result](c, "GET", "/api/plans/site/measured/file", "", 200); file.Format != measured.Format ||
		len(file.Figures) != len(found.Result.Figures) {
		t.Errorf("%+v", file)
	}
	edits, err := json.Marshal(found.Result.Corrections)
	if err != nil {
		t.Fatal(err)
	}
	// One figure by itself is named by its kind, what it is of and its first channel; another channel's is not it.
	one := func(channel string) Corrections {
		return call[Corrections](c, "POST", "/api/plans/site/measured/corrections",
			fmt.Sprintf(`{"figures":[{"kind":"rate","id":"kiosk","channel":%q}]}`, channel), 200)
	}
	if mine, other := one(rate.Channels[0]), one("booth"); mine.Version != 1 || len(mine.Edits) != 1 || len(other.Edits) != 0 {
		t.Errorf("of one figure %+v, of another channel's %+v", mine, other)
	}
	answer := call[Answer](c, "POST", "/api/plans/site/edits", fmt.Sprintf(`{"version":1,"edits":%s}`, edits), 200)
	if answer.Version != 2 || answer.Sentence == "" {
		t.Fatalf("%+v", answer)
	}
	again := call[MeasuredSite](c, "GET", "/api/plans/site/measured", "", 200)
	for _, f := range again.Result.Figures {
		if f.Kind == "rate" && f.MoreThanChance {
			t.Errorf("after it was corrected %+v", f)
		}
	}
	newer := c.brings(201, "name=kiosk2.csv&as=triggers", kioskLog(1))
	both := call[MeasuredSite](c, "GET", "/api/plans/site/measured", "", 200)
	if len(both.Brought) != 2 || !both.Brought[0].Counts || both.Brought[1].Counts || newer == "" {
		t.Errorf("%+v", both.Brought)
	}
	for _, b := range both.Brought {
		if status, _, body := c.send("DELETE", "/api/plans/site/measured/"+b.ID, ""); status != 204 {
			t.Errorf("%d %s", status, body)
		}
	}
	call[any](c, "DELETE", "/api/plans/site/measured/"+id.ID, "", 404)
	if none := call[MeasuredSite](c, "GET", "/api/plans/site/measured", "", 200); none.Result != nil {
		t.Errorf("%+v", none)
	}
	if r := call[HowRight](c, "GET", "/api/measured", "", 200); r.Sites != 0 {
		t.Errorf("%+v", r)
	}
}

// TestWhatIsNotUnderstoodDoesNotCount sends what says nothing, or nothing of this plan.
func TestWhatIsNotUnderstoodDoesNotCount(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	for query, text := range map[string]string{
		"": "start,channel\n2026-10-05 08:00,Cellar\n", "as=rates": "time,channel\n2026-10-05 08:00,1\n", "zone=Nowhere": "x",
		"channels=[1]": "start,channel\n2026-10-05 08:00,1\n", "on=yesterday": "channel 1 goes back to 5 Oct",
		"as=oldest": "channel 1 goes back to the flood",
	} {
		c.brings(422, query, text)
	}
	asks := c.brings(422, "as=triggers",
		"time,camera,event\n2026-10-05 08:00:00,1,motion on\n2026-10-05 08:00:09,1,over\n2026-10-05 08:00:10,1,blip\n")
	if !strings.Contains(asks, "say it first") {
		t.Error(asks)
	}
	c.brings(201, "kinds="+url.QueryEscape(`{"motion on":"start","over":"stop","blip":"other"}`)+"&channels="+url.QueryEscape(`{"1":"kiosk"}`),
		"time,camera,event\n2026-10-05 08:00:00,1,motion on\n2026-10-05 08:00:09,1,over\n2026-10-05 08:00:10,1,blip\n")
	found := call[MeasuredSite](c, "GET", "/api/plans/site/measured", "", 200)
	if len(found.Brought) != 1 || found.Result.Logs[0] != "kiosk" {
		t.Errorf("%+v", found)
	}
}

// TestALostEventIsPutThroughTheGates tells of an event that no plan records, of one that is recorded, and of what should not be.
func TestALostEventIsPutThroughTheGates(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	day := time.Now().UTC().AddDate(0, 0, -3).Format(time.DateOnly)
	tell := func(channel, clock, more string, want int) Lost {
		t.Helper()
		return call[Lost](c, "POST", "/api/plans/site/measured/missed",
			fmt.Sprintf(`{"channel":%q,"date":%q,"clock":%q,"seconds":0%s}`, channel, day, clock, more), want)
	}
	alarm := tell("fuel", "14:00", "", 200)
	if g := alarm.Gates[0]; g.Gate != "duty" || len(g.Mends) == 0 || g.Chance < 0.5 || alarm.Odds == nil {
		t.Errorf("%+v", alarm)
	}
	whole := tell("booth", "14:00", "", 200)
	if g := whole.Gates[0]; g.Gate != "kept" || whole.Odds.Missed != 0 {
		t.Errorf("%+v", whole)
	}
	berth := tell("berth-north", "14:00", "", 200)
	sum := 0.0
	for _, g := range berth.Gates {
		sum += g.Chance
	}
	if len(berth.Gates) < 2 || sum < 0.97 || sum > 1.001 {
		t.Errorf("%v of %+v", sum, berth.Gates)
	}
	unwanted := tell("breakwater", "14:00", `,"unwanted":true`, 200)
	if g := unwanted.Gates[0]; g.Gate != "source" || !strings.HasPrefix(g.Words, "Waves") || len(g.Mends) == 0 {
		t.Errorf("%+v", unwanted.Gates)
	}
	for _, m := range unwanted.Gates[0].Mends {
		edits, _ := json.Marshal(m.Edits)
		if d := call[Draft](c, "POST", "/api/plans/site/draft", fmt.Sprintf(`{"version":1,"edits":%s}`, edits), 200); d.Sentence == "" {
			t.Errorf("%s: %+v", m.Words, d)
		}
	}
	if _, _, body := c.send("POST", "/api/plans/site/measured/missed",
		`{"channel":"fuel","date":"2099-01-01","clock":"10:00","seconds":0}`); !strings.Contains(body, "future") {
		t.Error(body)
	}
	tell("nobody", "14:00", "", 404)
}

// TestNewSitesBeginWithWhatWasFound compares five sites that were begun from one kind of scene, at each of which more happens than
// guessed, and begins a sixth.
func TestNewSitesBeginWithWhatWasFound(t *testing.T) {
	c, s := serving(t, nil, "", Options{})
	opening := `{"name":"Yard %d","timeZone":"UTC","recorder":"R","channels":4,"ingestMbps":100,"drives":2,"terabytes":4,"layout":"span",
		"cameras":1,"codec":"h265","width":1920,"height":1080,"fps":12,"activity":"backdoor","duty":"motion","keepDays":10}`
	draft := func() OpeningDraft {
		return call[OpeningDraft](c, "POST", "/api/openings/draft", fmt.Sprintf(opening, 9), 200)
	}
	before := draft()
	for k := range 5 {
		made := call[CreatedSite](c, "POST", "/api/openings", fmt.Sprintf(opening, k), 201)
		site, err := s.Site(t.Context(), made.ID)
		if err != nil {
			t.Fatal(err)
		}
		var b strings.Builder
		b.WriteString("start,channel\n")
		at := time.Date(2026, 10, 5, 0, 0, 0, 0, time.UTC)
		rng := rand.New(rand.NewPCG(uint64(k), 1))
		for at.Before(time.Date(2026, 10, 26, 0, 0, 0, 0, time.UTC)) {
			at = at.Add(time.Duration(rng.ExpFloat64() * 1.2 * float64(time.Hour)))
			fmt.Fprintf(&b, "%s,1\n", at.Format(time.DateTime))
		}
		status, _, body := c.send("POST", "/api/plans/"+site.Adopted+"/measured?as=triggers", b.String(), "Content-Type",
			"application/octet-stream")
		if status != 201 {
			t.Fatalf("%d %s", status, body)
		}
		call[MeasuredSite](c, "GET", "/api/plans/"+site.Adopted+"/measured", "", 200)
	}
	right := call[HowRight](c, "GET", "/api/measured", "", 200)
	if right.Sites != 5 || len(right.Templates) != 1 || !right.Templates[0].Enough || right.Templates[0].Off < 1.2 || right.Learns {
		t.Fatalf("%+v", right)
	}
	if d := draft(); len(d.Learned) != 0 || d.Assumed.EventsPerDay != before.Assumed.EventsPerDay {
		t.Errorf("it learned before it was switched on: %+v", d.Learned)
	}
	if status, _, body := c.send("PUT", "/api/measured/learns", `{"learns":true}`); status != 204 {
		t.Errorf("%d %s", status, body)
	}
	d := draft()
	if len(d.Learned) != 1 || d.Learned[0].Sites != 5 || d.Assumed.EventsPerDay < 1.15*before.Assumed.EventsPerDay {
		t.Errorf("%+v, %v and %v", d.Learned, d.Assumed.EventsPerDay, before.Assumed.EventsPerDay)
	}
}

// TestAnEventAtTheEndOfADate lasts into the next date, from the midnight at which that begins.
func TestAnEventAtTheEndOfADate(t *testing.T) {
	c := start(t, demo.PennywhistleQuay())
	lost := call[Lost](c, "POST", "/api/plans/site/measured/missed",
		`{"channel":"hall","date":"2026-10-25","clock":"24:00","seconds":80000}`, 200)
	if lost.When != "Monday 26 Oct 2026 00:00" || lost.Odds == nil || lost.Odds.Rehearsals == 0 {
		t.Errorf("%+v", lost)
	}
}
