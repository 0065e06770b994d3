package device

import (
	"cmp"
	"context"
	"encoding/base64"
	"math"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/onvif"
)

// writeDetection sets rules and modules of a configuration.
func (c *Client) writeDetection(ctx context.Context, w *readout.Detection) error {
	rules, err := c.rules(ctx, "GetRules", "Rule", w.Configuration)
	if err != nil {
		return err
	}
	if w.Drawn == "grid" {
		if err := c.writeSensitivity(ctx, w); err != nil {
			return err
		}
	}
	kind := map[string]string{"grid": "CellMotionDetector", "polygon": "MotionRegionDetector"}[w.Drawn]
	if kind == "" {
		return &Error{Refused, "It tells of no detection that can be set."}
	}
	var there []rule
	for _, r := range rules {
		if r.kind == kind {
			there = append(there, r)
		}
	}
	var wanted []*onvif.Element
	if w.On {
		wanted = ruleElements(w, kind, there)
	}
	operation := func(name string, in ...any) error {
		_, err := c.call(ctx, onvif.Analytics, onvif.E("tan:"+name, append([]any{onvif.E("tan:ConfigurationToken", w.Configuration)}, in...)...))
		return err
	}
	n := min(len(there), len(wanted))
	if n > 0 {
		if err := operation("ModifyRules", wanted[:n]); err != nil {
			return err
		}
	}
	if len(wanted) > n {
		if err := operation("CreateRules", wanted[n:]); err != nil {
			return err
		}
	}
	var names []*onvif.Element
	for _, r := range there[n:] {
		names = append(names, onvif.E("tan:RuleName", r.name))
	}
	if len(names) > 0 {
		return operation("DeleteRules", names)
	}
	return nil
}

// ruleElements are rules as they are wanted; those that are there keep their names and what is not ours.
func ruleElements(w *readout.Detection, kind string, there []rule) (out []*onvif.Element) {
	named := func(k int, otherwise string) string {
		if k < len(there) {
			return there[k].name
		}
		return otherwise
	}
	if kind == "CellMotionDetector" {
		parameters := onvif.E("tt:Parameters")
		delay := 0.0
		if w.MinSeconds != nil {
			delay = math.Round(*w.MinSeconds * 1000)
		}
		ours := map[string]string{"MinCount": "5", "AlarmOnDelay": plan.Say("%v",
			delay), "AlarmOffDelay": "1000", "ActiveCells": onvif.ActiveCells(cellBits(w))}
		if len(there) > 0 {
			for _, name := range []string{"MinCount", "AlarmOffDelay"} {
				ours[name] = cmp.Or(there[0].items[name], ours[name])
			}
		}
		for _, name := range []string{"MinCount", "AlarmOnDelay", "AlarmOffDelay", "ActiveCells"} {
			parameters.AddChild(onvif.Item(name, ours[name]))
		}
		return []*onvif.Element{onvif.E("tan:Rule", onvif.Attr{Name: "Name", Value: named(0, "Motion")}, onvif.Attr{Name: "Type", Value: "tt:" +
			kind},
			parameters)}
	}
	areas := w.Areas
	if len(areas) == 0 {
		areas = []plan.Area{{Name: "Picture", Points: []plan.Point{{0, 0}, {1, 0}, {1, 1}, {0, 1}}}}
	}
	for k := range areas {
		points := make([][2]float64, len(areas[k].Points))
		for i, p := range areas[k].Points {
			points[i] = p
		}
		region := onvif.E("tt:MotionRegionConfig", onvif.Polygon(points))
		if s := w.SensitivityPercent; s != nil {
			region.AddChild(onvif.E("tt:Sensitivity", plan.Say("%v", math.Round(*s))))
		}
		out = append(out, onvif.E("tan:Rule", onvif.Attr{Name: "Name", Value: named(k, cmp.Or(areas[k].Name, "Area"))},
			onvif.Attr{Name: "Type", Value: "tt:" + kind}, onvif.E("tt:Parameters", onvif.ElementItem("MotionRegion", region))))
	}
	return out
}

// cellBits are the cells that are watched: all where no area is drawn.
func cellBits(w *readout.Detection) []byte {
	if len(w.Areas) > 0 && w.Areas[0].Cells != nil {
		if bits, err := base64.StdEncoding.DecodeString(w.Areas[0].Cells.On); err == nil {
			return bits
		}
	}
	bits := make([]byte, (w.Columns*w.Rows+7)/8)
	for k := range w.Columns * w.Rows {
		bits[k/8] |= 0x80 >> (k % 8)
	}
	return bits
}

// writeSensitivity sets that of the motion engine.
func (c *Client) writeSensitivity(ctx context.Context, w *readout.Detection) error {
	modules, err := c.rules(ctx, "GetAnalyticsModules", "AnalyticsModule", w.Configuration)
	if err != nil || w.SensitivityPercent == nil {
		return err
	}
	for i := range modules {
		m := &modules[i]
		if m.kind != "CellMotionEngine" {
			continue
		}
		if is := percent(m.items["Sensitivity"]); is != nil && math.Abs(*is-*w.SensitivityPercent) < 0.5 {
			return nil
		}
		parameters := onvif.E("tt:Parameters", onvif.Item("Sensitivity", plan.Say("%v", math.Round(*w.SensitivityPercent))))
		if w.Columns > 0 {
			parameters.AddChild(onvif.ElementItem("Layout", onvif.Layout{Columns: w.Columns, Rows: w.Rows}.Element()))
		}
		_, err := c.ask(ctx, onvif.Analytics, onvif.E("tan:ModifyAnalyticsModules", onvif.E("tan:ConfigurationToken", w.Configuration),
			onvif.E("tan:AnalyticsModule", onvif.Attr{Name: "Name", Value: m.name}, onvif.Attr{Name: "Type", Value: "tt:CellMotionEngine"},
				parameters)))
		return err
	}
	return nil
}
