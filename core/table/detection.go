package table

import (
	"fmt"
	"strconv"
	"strings"

	"wakefield.example/core/plan"
)

// byColumn says whether camera or recorder does something; empty where nobody says.
func byColumn(id, title, group string, at func(*plan.Channel) *string) Column {
	return Column{ID: id, Title: title, Group: group, choices: fixed("camera", "recorder"),
		get: func(_ *plan.Plan, c *plan.Channel) string { return *at(c) },
		set: func(_ *plan.Plan, c *plan.Channel, text string) error {
			by := strings.ToLower(text)
			if by != "" && by != "camera" && by != "recorder" {
				return fmt.Errorf("%q is neither camera nor recorder", text)
			}
			*at(c) = by
			return nil
		}}
}

// detectionColumns say how motion becomes a trigger. Areas are drawn in each picture and stand in no cell.
func detectionColumns() []Column {
	return []Column{
		{ID: "detection", Title: "Detection", Group: "Events", get: getDetection, set: setDetectionState, choices: fixed("on", "off")},
		byColumn("detectedBy", "Detected by", "Events", func(c *plan.Channel) *string { return &c.Detection.By }),
		{ID: "detectionHours", Title: "Detection hours", Group: "Events", get: getDetectionHours, set: setDetectionHours},
		number("shortest", "Shortest motion", "Events", "s", func(c *plan.Channel) *float64 { return &c.Detection.MinSeconds }),
		chance("reliable", "Detector reliability", func(c *plan.Channel) **float64 { return &c.Detection.Reliability }),
		chance("catch", "Caught (stated)", func(c *plan.Channel) **float64 { return &c.Detection.Catch }),
	}
}

func getDetection(_ *plan.Plan, c *plan.Channel) string {
	if c.Detection.On {
		return "on"
	}
	return "off"
}

func setDetectionState(_ *plan.Plan, c *plan.Channel, text string) error {
	switch strings.ToLower(text) {
	case "on", "yes":
		c.Detection.On = true
	case "off", "no", "":
		c.Detection.On = false
	default:
		return fmt.Errorf("%q is neither on nor off", text)
	}
	return nil
}

func getDetectionHours(_ *plan.Plan, c *plan.Channel) string {
	if c.Detection.Hours == nil {
		return ""
	}
	return plan.HoursText(c.Detection.Hours.Blocks)
}

func setDetectionHours(_ *plan.Plan, c *plan.Channel, text string) error {
	if text == "" {
		c.Detection.Hours = nil
		return nil
	}
	blocks, err := plan.ReadHours(text)
	if err != nil {
		return err
	}
	c.Detection.Hours = &plan.HourList{Blocks: blocks}
	return nil
}

// chance is a column of a chance in percent, empty where nothing is said of it.
func chance(id, title string, at func(*plan.Channel) **float64) Column {
	return Column{ID: id, Title: title, Group: "Events", Unit: "%", Numeric: true,
		get: func(_ *plan.Plan, c *plan.Channel) string {
			if *at(c) == nil {
				return ""
			}
			return strconv.FormatFloat(digits(100***at(c)), 'f', -1, 64)
		},
		set: func(_ *plan.Plan, c *plan.Channel, text string) error {
			if text == "" {
				*at(c) = nil
				return nil
			}
			var percent float64
			if err := setFloat(&percent, text, "%"); err != nil {
				return err
			}
			if percent < 0 || percent > 100 { // in the unit in which it was typed
				return fmt.Errorf("“%s” is not between 0 and 100 %%", text)
			}
			share := digits(percent / 100)
			*at(c) = &share
			return nil
		}}
}

// digits keeps twelve of a number, so that a share and its percentage are of one another.
func digits(f float64) float64 {
	f, _ = strconv.ParseFloat(strconv.FormatFloat(f, 'g', 12, 64), 64) // what was just written
	return f
}
