package edit

import (
	"fmt"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// CopyDay gives channels on some days of the week the duties of another day: of their
// own, or of the channel that is named. A channel that follows a named week departs
// from it.
type CopyDay struct {
	Channels []string       `json:"channels" minItems:"1" maxItems:"5000"`
	From     week.Weekday   `json:"from"`
	To       []week.Weekday `json:"to" minItems:"1" maxItems:"7"`
	Of       string         `json:"of,omitempty" maxLength:"100" doc:"Id of the channel whose day is copied; absent for each one's own"`
}

func (e *CopyDay) apply(p *plan.Plan) (*plan.Plan, error) {
	of := p.Channel(e.Of)
	if e.Of != "" && of == nil {
		return nil, document.Wrong("of", "no channel %q", e.Of)
	}
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		copied := p.WeekOf(c).Steps()
		steps := copied
		if of != nil {
			steps = p.WeekOf(of).Steps()
		}
		source := week.Span{From: e.From.Start(), To: e.From.Start() + week.Day}
		for _, day := range e.To {
			for run, duty := range steps.Runs() {
				from, to := max(run.From, source.From), min(run.To, source.To)
				if from < to {
					shift := day.Start() - e.From.Start()
					copied = copied.Paint(week.Span{From: from + shift, To: to + shift}, duty)
				}
			}
		}
		c.Week = plan.WeekRef{Own: plan.WeekOf(copied)}
		return nil
	})
}

func (e *CopyDay) sentence(p *plan.Plan) string {
	days := make([]string, len(e.To))
	for i, d := range e.To {
		days[i] = d.Name()[:3]
	}
	what := e.From.Name()
	if c := p.Channel(e.Of); c != nil {
		what += " of " + c.Name
	}
	return fmt.Sprintf("%s: %s copied onto %s", names(p, e.Channels), what, strings.Join(days, ", "))
}

// CopyWeek gives channels the week of another: its own one is copied, a named one is
// followed.
type CopyWeek struct {
	From     string   `json:"from" minLength:"1" maxLength:"100" doc:"Id of the channel whose week is copied"`
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
}

func (e *CopyWeek) apply(p *plan.Plan) (*plan.Plan, error) {
	from := p.Channel(e.From)
	if from == nil {
		return nil, document.Wrong("from", "no channel %q", e.From)
	}
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.Week = from.Week
		return nil
	})
}

func (e *CopyWeek) sentence(p *plan.Plan) string {
	name := e.From
	if c := p.Channel(e.From); c != nil {
		name = c.Name
	}
	return fmt.Sprintf("%s: the week of %s", names(p, e.Channels), name)
}
