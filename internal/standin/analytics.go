package standin

import (
	"slices"
	"strconv"

	"wakefield.example/internal/onvif"
)

func init() {
	answers(false, map[string]operation{
		"tan:GetRules":            getRules,
		"tan:GetAnalyticsModules": getModules,
		"tan:GetSupportedRules": func(*asked) (*onvif.Element, *onvif.Fault) {
			return E("tan:GetSupportedRulesResponse", E("tan:SupportedRules")), nil
		},
		"tan:GetSupportedAnalyticsModules": func(*asked) (*onvif.Element, *onvif.Fault) {
			return E("tan:GetSupportedAnalyticsModulesResponse", E("tan:SupportedAnalyticsModules")), nil
		},
		"tan:GetServiceCapabilities": func(*asked) (*onvif.Element, *onvif.Fault) {
			return capabilities("tan", A("RuleSupport", "true"), A("AnalyticsModuleSupport", "true"),
				A("CellBasedSceneDescriptionSupported", "false")), nil
		},
	})
	answers(true, map[string]operation{
		"tan:CreateRules":            createRules,
		"tan:ModifyRules":            modifyRules,
		"tan:DeleteRules":            deleteRules,
		"tan:ModifyAnalyticsModules": modifyModules,
	})
}

// detecting finds the channel whose detection is asked for.
func (q *asked) detecting() (*Channel, *onvif.Fault) {
	token := onvif.Text(q.in, "ConfigurationToken")
	for _, c := range q.state.Channels {
		if c.Analytics && "VAC"+c.Source[2:] == token {
			return c, nil
		}
	}
	return nil, invalid("NoConfig", "There is no such configuration")
}

// element writes a rule.
func (r *Rule) element(name string) *onvif.Element {
	in := E("tt:Parameters")
	if r.Type == "CellMotionDetector" {
		for _, i := range [][2]string{{"MinCount", r.MinCount}, {"AlarmOnDelay", r.OnDelay}, {"AlarmOffDelay", r.OffDelay},
			{"ActiveCells", r.Cells}} {
			in.AddChild(onvif.Item(i[0], i[1]))
		}
	} else {
		region := E("tt:MotionRegionConfig", onvif.Polygon(r.Points))
		if r.Sensitivity != "" {
			region.AddChild(E("tt:Sensitivity", r.Sensitivity))
		}
		in.AddChild(onvif.ElementItem("MotionRegion", region))
	}
	return E(name, A("Name", r.Name), A("Type", "tt:"+r.Type), in)
}

// ruleOf reads a rule.
func (c *Channel) ruleOf(e *onvif.Element) (r Rule, fault *onvif.Fault) {
	in := onvif.At(e, "Parameters")
	items := onvif.Items(in)
	r = Rule{Name: e.SelectAttrValue("Name", ""), Type: e.SelectAttrValue("Type", "")}
	if k := slices.Index([]byte(r.Type), ':'); k >= 0 {
		r.Type = r.Type[k+1:]
	}
	switch {
	case r.Type == "CellMotionDetector" && c.Columns > 0:
		r.MinCount, r.OnDelay, r.OffDelay, r.Cells = items["MinCount"], items["AlarmOnDelay"], items["AlarmOffDelay"], items["ActiveCells"]
		if _, err := onvif.CellsOf(r.Cells, c.Columns*c.Rows); err != nil {
			return r, invalid("InvalidRule", err.Error())
		}
	case r.Type == "MotionRegionDetector" && c.Columns == 0:
		region := onvif.At(in, "ElementItem/MotionRegionConfig")
		if outline := onvif.At(region, "Polygon"); outline != nil {
			r.Points = onvif.PolygonOf(outline)
		}
		if len(r.Points) < 3 {
			return r, invalid("InvalidRule", "A region has three corners or more")
		}
		r.Sensitivity = onvif.Text(region, "Sensitivity")
	default:
		return r, invalid("InvalidRule", "There are no rules of type "+r.Type)
	}
	return r, nil
}

func getRules(q *asked) (*onvif.Element, *onvif.Fault) {
	c, fault := q.detecting()
	if fault != nil {
		return nil, fault
	}
	e := E("tan:GetRulesResponse")
	for k := range c.Rules {
		e.AddChild(c.Rules[k].element("tan:Rule"))
	}
	return e, nil
}

// modules are those of a channel's engine.
func (c *Channel) modules(name string) []*onvif.Element {
	if c.Columns == 0 {
		return []*onvif.Element{E(name, A("Name", "Regions"), A("Type", "tt:MotionRegionDetector"), E("tt:Parameters"))}
	}
	return []*onvif.Element{E(name, A("Name", "Cells"), A("Type", "tt:CellMotionEngine"), E("tt:Parameters",
		onvif.Item("Sensitivity", strconv.Itoa(c.Sensitivity)),
		onvif.ElementItem("Layout", onvif.Layout{Columns: c.Columns, Rows: c.Rows}.Element())))}
}

func getModules(q *asked) (*onvif.Element, *onvif.Fault) {
	c, fault := q.detecting()
	if fault != nil {
		return nil, fault
	}
	return E("tan:GetAnalyticsModulesResponse", c.modules("tan:AnalyticsModule")), nil
}

func modifyModules(q *asked) (*onvif.Element, *onvif.Fault) {
	c, fault := q.detecting()
	if fault != nil {
		return nil, fault
	}
	for _, m := range onvif.All(q.in, "AnalyticsModule") {
		if n, err := strconv.Atoi(onvif.Items(onvif.At(m, "Parameters"))["Sensitivity"]); err == nil && n >= 0 && n <= 100 {
			c.Sensitivity = n
		}
	}
	return E("tan:ModifyAnalyticsModulesResponse"), nil
}

func createRules(q *asked) (*onvif.Element, *onvif.Fault) {
	return q.rules("tan:CreateRulesResponse", func(c *Channel, r Rule) *onvif.Fault {
		c.Rules = append(c.Rules, r)
		return nil
	})
}

func modifyRules(q *asked) (*onvif.Element, *onvif.Fault) {
	return q.rules("tan:ModifyRulesResponse", func(c *Channel, r Rule) *onvif.Fault {
		for k := range c.Rules {
			if c.Rules[k].Name == r.Name {
				c.Rules[k] = r
				return nil
			}
		}
		return invalid("RuleNotExistent", "There is no rule "+r.Name)
	})
}

func (q *asked) rules(name string, each func(c *Channel, r Rule) *onvif.Fault) (*onvif.Element, *onvif.Fault) {
	c, fault := q.detecting()
	if fault != nil {
		return nil, fault
	}
	for _, e := range onvif.All(q.in, "Rule") {
		r, fault := c.ruleOf(e)
		if fault == nil {
			fault = each(c, r)
		}
		if fault != nil {
			return nil, fault
		}
	}
	return E(name), nil
}

func deleteRules(q *asked) (*onvif.Element, *onvif.Fault) {
	c, fault := q.detecting()
	if fault != nil {
		return nil, fault
	}
	for _, e := range onvif.All(q.in, "RuleName") {
		c.Rules = slices.DeleteFunc(c.Rules, func(r Rule) bool { return r.Name == e.Text() })
	}
	return E("tan:DeleteRulesResponse"), nil
}
