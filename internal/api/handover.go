package api

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/estimate"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
	"wakefield.example/core/walktest"
	"wakefield.example/core/week"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerHandover adds what is carried to the recorders: the plan as they take it, sheets, and what was done of them.
func registerHandover(api huma.API, s *service) {
	huma.Register(api, op("entered", http.MethodGet, "/api/plans/{id}/entered", "The plan as its recorders take it, beside the plan"),
		s.entered)
	huma.Register(api, op("sheets", http.MethodGet, "/api/plans/{id}/sheets", "What is typed at the recorders, and what was done of it"),
		s.sheets)
	huma.Register(api, op("tick", http.MethodPost, "/api/plans/{id}/ticks", "Steps of a sheet are done, or not after all"), s.tick)
	huma.Register(api, op("printed", http.MethodPost, "/api/plans/{id}/printed", "Sheets were printed or taken along"), s.print)
	huma.Register(api, op("handoverFile", http.MethodGet, "/api/plans/{id}/handover", "What was done of the sheets as a file"), s.handoverFile)
}

// EnteredStretch is a stretch of a channel's week in which another duty is entered than planned.
type EnteredStretch struct {
	Channel string      `json:"channel" doc:"Id"`
	From    week.Minute `json:"from" doc:"Minutes since Monday 00:00"`
	To      week.Minute `json:"to"`
	Duty    string      `json:"duty" doc:"Id of the duty that is entered"`
}

// EnteredPlan is the plan as its recorders take it.
type EnteredPlan struct {
	Version    int64                `json:"version" doc:"Of the plan"`
	Differs    bool                 `json:"differs" doc:"Whether anything is entered otherwise than planned"`
	Departures []handover.Departure `json:"departures"`
	Stretches  []EnteredStretch     `json:"stretches"`
	Duties     []plan.Duty          `json:"duties" doc:"That are entered and the plan does not have"`
	Verdict    estimate.Verdict     `json:"verdict" doc:"As entered"`
	Planned    estimate.Verdict     `json:"planned" doc:"As planned"`
	Figures    []estimate.Channel   `json:"figures" doc:"Of channels whose figures are others as entered"`
	Pools      []estimate.Pool      `json:"pools" doc:"As entered"`
}

func (s *service) entered(ctx context.Context, in *PlanParam) (*body[EnteredPlan], error) {
	e, src, err := s.sourceOf(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := EnteredPlan{Version: e.head.Version, Differs: src.Entered.Differs(), Departures: []handover.Departure{},
		Stretches: []EnteredStretch{}, Duties: []plan.Duty{},
		Verdict: src.As.Verdict, Planned: e.site.Verdict, Figures: []estimate.Channel{}, Pools: src.As.Pools}
	out.Departures = append(out.Departures, src.Entered.Departures...)
	if src.As != e.site {
		changed := src.As.Changed(e.site)
		for i := range src.As.Channels {
			if changed[i].Figures {
				out.Figures = append(out.Figures, src.As.Channels[i])
			}
		}
		out.Duties = append(out.Duties, src.Entered.Plan.Duties[len(e.head.Plan.Duties):]...)
	}
	for i := range e.head.Plan.Channels {
		was, is := e.head.Plan.WeekOf(&e.head.Plan.Channels[i]).Steps(), src.Entered.Plan.WeekOf(&src.Entered.Plan.Channels[i]).Steps()
		for run, at := range week.Both(was, is).Runs() {
			if at.A != at.B {
				out.Stretches = append(out.Stretches, EnteredStretch{e.head.Plan.Channels[i].ID, run.From, run.To, at.B})
			}
		}
	}
	return &body[EnteredPlan]{out}, nil
}

// SheetStep is a step with what is known of it.
type SheetStep struct {
	handover.Step
	Key     string      `json:"key" doc:"What it does; a tick is of that"`
	Done    *store.Tick `json:"done,omitempty" doc:"Who did it, and when; absent where nobody did"`
	Changed bool        `json:"changed,omitempty" doc:"Whether it does something else than what was done"`
	Since   bool        `json:"since,omitempty" doc:"Whether it is not on the sheet that was printed"`
	Channel string      `json:"channel,omitempty" doc:"Id of the channel whose week it changes"`
	After   []RailStep  `json:"after,omitempty" doc:"What stands of that week once it is done; a duty without id is the one that recorders are delivered with"`
}

// RecorderSheet is the sheet of a recorder.
type RecorderSheet struct {
	ID              string              `json:"id"`
	Name            string              `json:"name"`
	Entries         int                 `json:"entries"`
	EntriesOneByOne int                 `json:"entriesOneByOne"`
	Steps           []SheetStep         `json:"steps"`
	Now             string              `json:"now" doc:"Which of its channels must record at this moment, and which must not; empty where it has none"`
	Departures      []handover.Likeness `json:"departures" doc:"What it cannot take as planned"`
	Duties          []string            `json:"duties" doc:"Ids of duties that its channels have, as entered"`
	Printed         *store.Printed      `json:"printed,omitempty" doc:"When its sheet was printed; absent where it was not"`
	SinceThen       []string            `json:"sinceThen,omitempty" doc:"What was changed since then, newest first"`
	Gone            []store.Tick        `json:"gone,omitempty" doc:"What was done and is on the sheet no more"`
}

// Sheets are all sheets of a plan.
type Sheets struct {
	Version   int64           `json:"version" doc:"Of the plan"`
	Sections  plan.Choices    `json:"sections"`
	Duties    []plan.Duty     `json:"duties" doc:"Of the plan as entered"`
	Recorders []RecorderSheet `json:"recorders"`
	Weeks     []SheetWeek     `json:"weeks" doc:"What channels record, as entered"`
}

// SheetWeek is the week of a channel as it stands at the recorder when all is typed.
type SheetWeek struct {
	Channel string     `json:"channel" doc:"Id"`
	Rail    []RailStep `json:"rail"`
}

func (s *service) sheets(ctx context.Context, in *PlanParam) (*body[Sheets], error) {
	e, src, err := s.sourceOf(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	ticks, err := s.store.Ticks(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	printed, err := s.store.PrintedOf(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := Sheets{Version: e.head.Version, Sections: handover.Sections, Duties: src.Entered.Plan.Duties,
		Recorders: []RecorderSheet{}, Weeks: []SheetWeek{}}
	for i := range src.Entered.Plan.Channels {
		c := &src.Entered.Plan.Channels[i]
		out.Weeks = append(out.Weeks, SheetWeek{c.ID, railOf(src.Entered.Plan.WeekOf(c).Steps())})
	}
	doc := src.Document()
	for i := range doc.Recorders {
		r := recorderSheet(&doc.Recorders[i], ticks)
		r.Now = handover.SignsAt(src.Entered, i, thisMinute(e))
		r.Departures = append(r.Departures, src.Entered.Alike(r.ID)...)
		r.Duties = dutiesAt(src.Entered.Plan, r.ID)
		if p, ok := printed[r.ID]; ok {
			if err := s.sincePrinted(ctx, e, &r, &doc.Recorders[i], p); err != nil {
				return nil, s.problem(ctx, err)
			}
		}
		out.Recorders = append(out.Recorders, r)
	}
	return &body[Sheets]{out}, nil
}

// dutiesAt are the duties that channels of a recorder have.
func dutiesAt(p *plan.Plan, recorder string) []string {
	out := []string{}
	for i := range p.Channels {
		if c := &p.Channels[i]; c.Recorder == recorder {
			for _, step := range p.WeekOf(c).Steps() {
				if !slices.Contains(out, step.Value) {
					out = append(out, step.Value)
				}
			}
		}
	}
	return out
}

// recorderSheet is a sheet with what was done of it.
func recorderSheet(sheet *handover.Sheet, ticks []store.Tick) RecorderSheet {
	r := RecorderSheet{ID: sheet.ID, Name: sheet.Name, Entries: sheet.Entries, EntriesOneByOne: sheet.EntriesOneByOne, Steps: []SheetStep{},
		Departures: []handover.Likeness{}}
	byKey, bySubject := make(map[string]*store.Tick), make(map[string]bool)
	for k := range ticks {
		if ticks[k].Recorder == sheet.ID {
			byKey[ticks[k].Key] = &ticks[k]
			bySubject[ticks[k].Subject] = true
		}
	}
	used := make(map[string]bool)
	after := handover.After(sheet)
	for k := range sheet.Steps {
		st := SheetStep{Step: sheet.Steps[k], Key: sheet.Steps[k].Key()}
		if a := after[k]; a != nil {
			st.Channel, st.After = a.Channel, railOf(a.Week)
		}
		if st.Done = byKey[st.Key]; st.Done != nil {
			used[st.Key] = true
		} else {
			st.Changed = bySubject[sheet.Steps[k].Subject()]
		}
		r.Steps = append(r.Steps, st)
	}
	for k := range ticks {
		if t := &ticks[k]; t.Recorder == sheet.ID && !used[t.Key] {
			r.Gone = append(r.Gone, *t)
		}
	}
	return r
}

// mostSince changes are told since a sheet was printed.
const mostSince = 12

// sincePrinted tells what changed since a sheet was printed.
func (s *service) sincePrinted(ctx context.Context, e entry, r *RecorderSheet, now *handover.Sheet, printed store.Printed) error {
	r.Printed = &printed
	if printed.Revision >= e.head.Version {
		return nil
	}
	then, there, err := s.sheetsAt(ctx, e, printed.Revision)
	if err != nil {
		return err
	}
	if there {
		var before *handover.Sheet
		if i := slices.IndexFunc(then.Recorders, func(r handover.Sheet) bool { return r.ID == now.ID }); i >= 0 {
			before = &then.Recorders[i]
		}
		changed := handover.Changes(before, now)
		for k := range r.Steps {
			r.Steps[k].Since = slices.Contains(changed, r.Steps[k].ID)
		}
	}
	list, err := s.store.History(ctx, e.head.ID, 0, mostSince, store.Search{})
	for _, rev := range list {
		if rev.Number > printed.Revision {
			r.SinceThen = append(r.SinceThen, rev.Sentence)
		}
	}
	return err
}

// sheetsAt are the sheets of a plan as they were at a revision; there is false where that is not there any more. They are
// remembered, as they are asked for after every change.
func (s *service) sheetsAt(ctx context.Context, e entry, revision int64) (doc handover.Document, there bool, err error) {
	key := printedKey{e.head.ID, e.head.Mark, revision}
	if doc, there = s.printed.Get(key); there {
		return doc, true, nil
	}
	doc, err = server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (doc handover.Document, err error) {
		then, err := s.revisionOf(ctx, e, revision)
		if err != nil {
			return doc, err
		}
		entered := handover.Enter(then.head.Plan, then.site)
		figures := then.site
		if entered.Plan != then.head.Plan {
			if figures, err = estimate.FiguresContext(ctx, entered.Plan, then.site); err != nil {
				return doc, err
			}
		}
		return handover.Sheets(entered, figures, today(e)), nil
	})
	if errors.Is(err, store.ErrNoRevision) {
		return doc, false, nil // thinned out, or of another history
	}
	if err == nil {
		s.printed.Put(key, doc)
	}
	return doc, err == nil, err
}

// TickInput says which steps are done.
type TickInput struct {
	PlanParam
	SentBy
	Body struct {
		Recorder string   `json:"recorder" maxLength:"100" doc:"Id"`
		Keys     []string `json:"keys" minItems:"1" maxItems:"5000" doc:"Of the steps"`
		Done     bool     `json:"done"`
	}
}

func (s *service) tick(ctx context.Context, in *TickInput) (*body[Sheets], error) {
	e, src, err := s.sourceOf(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	doc := src.Document()
	i := slices.IndexFunc(doc.Recorders, func(r handover.Sheet) bool { return r.ID == in.Body.Recorder })
	if i < 0 {
		return nil, huma.Error404NotFound("There is no such recorder in the plan any more.")
	}
	var list []store.Tick
	author := in.note("").Author
	for _, key := range in.Body.Keys {
		k := slices.IndexFunc(doc.Recorders[i].Steps, func(st handover.Step) bool { return st.Key() == key })
		switch {
		case k >= 0:
			st := &doc.Recorders[i].Steps[k]
			list = append(list, store.Tick{Recorder: in.Body.Recorder, Key: key, Subject: st.Subject(), Step: st.ID, Words: st.Words,
				Revision: e.head.Version, Author: author})
		case !in.Body.Done: // of a step that is gone
			list = append(list, store.Tick{Recorder: in.Body.Recorder, Key: key})
		default:
			return nil, huma.Error409Conflict("The step has changed in the meantime. Here is the sheet as it stands now: do what it says.")
		}
	}
	done, undone := list, []store.Tick(nil)
	if !in.Body.Done {
		done, undone = nil, list
	}
	if err := s.store.SetTicks(ctx, e.head.Site, in.ID, done, undone); err != nil {
		return nil, s.problem(ctx, err)
	}
	return s.sheets(ctx, &in.PlanParam)
}

func (s *service) print(ctx context.Context, in *struct {
	PlanParam
	SentBy
	Body struct {
		Recorders []string `json:"recorders" minItems:"1" maxItems:"500" doc:"Ids"`
		Version   int64    `json:"version" doc:"Of the plan, as it was printed"`
	}
}) (*body[Sheets], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	for _, id := range in.Body.Recorders {
		if e.head.Plan.Recorder(id) == nil {
			return nil, huma.Error404NotFound("There is no such recorder in the plan any more.")
		}
	}
	if in.Body.Version > e.head.Version || in.Body.Version < 1 {
		return nil, huma.Error422UnprocessableEntity("There is no such revision yet.")
	}
	if err := s.store.Print(ctx, e.head.Site, in.ID, in.Body.Recorders, in.Body.Version, in.note("").Author); err != nil {
		return nil, s.problem(ctx, err)
	}
	return s.sheets(ctx, &in.PlanParam)
}

// HandoverFormat is the version of the file of what was done.
const HandoverFormat = "wakefield-handover/1"

// HandoverFile is what was done of the sheets of a plan. It is no decision, and so no part of the plan.
type HandoverFile struct {
	Format  string          `json:"format" enum:"wakefield-handover/1"`
	Site    string          `json:"site" doc:"Name of the site"`
	Plan    string          `json:"plan" doc:"Name of the variant"`
	Version int64           `json:"version" doc:"Revision of the plan at the time of writing"`
	Ticks   []store.Tick    `json:"ticks"`
	Printed []store.Printed `json:"printed"`

	Records []walktest.Record `json:"records" doc:"What was walked, tried and decided on site, oldest first"`
}

func (s *service) handoverFile(ctx context.Context, in *PlanParam) (*attachedJSON[HandoverFile], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := HandoverFile{Format: HandoverFormat, Site: e.head.Plan.Site.Name, Plan: e.head.Plan.Name, Version: e.head.Version,
		Ticks: []store.Tick{}, Printed: []store.Printed{}}
	ticks, err := s.store.Ticks(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out.Ticks = append(out.Ticks, ticks...)
	if out.Records, err = s.recordsOf(ctx, in.ID); err != nil {
		return nil, s.problem(ctx, err)
	}
	printed, err := s.store.PrintedOf(ctx, in.ID)
	for i := range e.head.Plan.Recorders {
		if p, ok := printed[e.head.Plan.Recorders[i].ID]; ok {
			out.Printed = append(out.Printed, p)
		}
	}
	return &attachedJSON[HandoverFile]{attached(e.head.Plan, "handover", "json", time.Now()), out}, s.problem(ctx, err)
}

// attachedJSON is an answer that browsers keep as a file.
type attachedJSON[T any] struct {
	Disposition string `header:"Content-Disposition"`
	Body        T
}
