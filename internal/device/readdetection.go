package device

import (
	"context"
	"encoding/base64"
	"strconv"

	"golang.org/x/sync/errgroup"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/onvif"
)

// eachDetection reads how each channel's camera notices motion.
func (r *reading) eachDetection(ctx context.Context, g *errgroup.Group) {
	if !r.Has(onvif.Analytics) {
		return
	}
	for i := range r.d.Channels {
		c := &r.d.Channels[i]
		token := ""
		for _, p := range r.profiles {
			if p.source == c.Token && p.analytics != "" {
				token = p.analytics
				break
			}
		}
		if token == "" {
			continue
		}
		r.more(1)
		g.Go(func() error {
			d, err := r.detection(ctx, token)
			if err == nil {
				c.Detection = d
			}
			return r.unless("detection", err)
		})
	}
}

// rule is a rule or a module of analytics.
type rule struct {
	name, kind string
	items      map[string]string
	in         *onvif.Element // its parameters
}

func (c *Client) rules(ctx context.Context, operation, list, configuration string) (out []rule, err error) {
	answer, err := c.ask(ctx, onvif.Analytics, onvif.E("tan:"+operation, onvif.E("tan:ConfigurationToken", configuration)))
	if err != nil {
		return nil, err
	}
	for _, e := range onvif.All(answer, list) {
		parameters := onvif.At(e, "Parameters")
		out = append(out, rule{e.SelectAttrValue("Name", ""), localName(e.SelectAttrValue("Type", "")), onvif.Items(parameters), parameters})
	}
	return out, nil
}

func localName(name string) string {
	for k := len(name) - 1; k >= 0; k-- {
		if name[k] == ':' {
			return name[k+1:]
		}
	}
	return name
}

// element is the element of an item that holds one.
func (r *rule) element(name string) *onvif.Element {
	for _, item := range onvif.All(r.in, "ElementItem") {
		if item.SelectAttrValue("Name", "") == name {
			if in := item.ChildElements(); len(in) > 0 {
				return in[0]
			}
		}
	}
	return nil
}

// detection reads rules and modules of one configuration: regions that are polygons, or cells of a grid.
func (c *Client) detection(ctx context.Context, configuration string) (*readout.Detection, error) {
	rules, err := c.rules(ctx, "GetRules", "Rule", configuration)
	if err != nil {
		return nil, err
	}
	modules, err := c.rules(ctx, "GetAnalyticsModules", "AnalyticsModule", configuration)
	if err != nil {
		return nil, err
	}
	d := &readout.Detection{Drawn: "none", Configuration: configuration}
	for i := range modules {
		if m := &modules[i]; m.kind == "CellMotionEngine" {
			d.Drawn = "grid"
			if l, err := onvif.LayoutOf(orEmpty(m.element("Layout"))); err == nil {
				d.Columns, d.Rows = l.Columns, l.Rows
			}
			d.SensitivityPercent = percent(m.items["Sensitivity"])
		}
		if m := &modules[i]; m.kind == "MotionRegionDetector" || m.kind == "MotionRegion" {
			d.Drawn = "polygon"
		}
	}
	for i := range rules {
		switch m := &rules[i]; m.kind {
		case "CellMotionDetector":
			d.On = true
			if err := cellRule(d, m); err != nil {
				return nil, err
			}
		case "MotionRegionDetector":
			d.On, d.Drawn = true, "polygon"
			regionRule(d, m)
		}
	}
	return d, nil
}

func orEmpty(e *onvif.Element) *onvif.Element {
	if e == nil {
		return onvif.E("tt:CellLayout")
	}
	return e
}

// percent is a sensitivity; nil where the text is none.
func percent(text string) *float64 {
	n, err := strconv.ParseFloat(text, 64)
	if err != nil || n < 0 || n > 100 {
		return nil
	}
	return &n
}

// cellRule reads which cells are watched. All cells are no area: then all of the picture is watched.
func cellRule(d *readout.Detection, m *rule) error {
	if ms, err := strconv.ParseFloat(m.items["AlarmOnDelay"], 64); err == nil && ms >= 0 {
		s := ms / 1000
		d.MinSeconds = &s
	}
	if d.Columns == 0 || d.Columns > 128 || d.Rows > 96 {
		return nil // a grid that no plan has
	}
	bits, err := onvif.CellsOf(m.items["ActiveCells"], d.Columns*d.Rows)
	if err != nil {
		return &Error{Refused, "Its cells are not understood: " + err.Error() + "."}
	}
	painted := 0
	for k := range d.Columns * d.Rows {
		painted += int(bits[k/8] >> (7 - k%8) & 1)
	}
	if painted < d.Columns*d.Rows {
		d.Areas = []plan.Area{{ID: "grid", Name: "Grid", Cells: &plan.AreaCells{Columns: d.Columns, Rows: d.Rows,
			On: base64.StdEncoding.EncodeToString(bits)}}}
	}
	return nil
}

// regionRule reads a region. One without an outline is all of the picture.
func regionRule(d *readout.Detection, m *rule) {
	region := m.element("MotionRegion")
	if s := percent(m.items["Sensitivity"]); s != nil {
		d.SensitivityPercent = s
	} else if region != nil {
		if s := percent(onvif.Text(region, "Sensitivity")); s != nil {
			d.SensitivityPercent = s
		}
	}
	outline := onvif.At(region, "Polygon")
	if outline == nil {
		outline = m.element("Field") // where older devices have it
		if outline != nil && outline.Tag != "Polygon" {
			outline = onvif.At(outline, "Polygon")
		}
	}
	if outline == nil {
		return
	}
	var points []plan.Point
	for _, p := range onvif.PolygonOf(outline) {
		points = append(points, plan.Point(p))
	}
	if len(points) >= 3 && len(points) <= 200 {
		d.Areas = append(d.Areas, plan.Area{ID: "area-" + strconv.Itoa(len(d.Areas)+1), Name: m.name, Points: points})
	}
}
