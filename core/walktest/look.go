package walktest

import (
	"slices"

	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
)

// sectionOf is the section of a sheet in which what a fault is about is set.
var sectionOf = map[Fault]string{Off: "detection", Wait: "detection", Hours: "detection", Untied: "detection",
	Size: "detection", NoAreas: "detection",
	Strange: "detection", Pre: "times", Post: "times", Deaf: "week"}

// Look is the id of the step of a sheet at which what a fault is about is set for a channel; empty where there is none, as of a
// camera that is turned.
func Look(sheet *handover.Sheet, channel string, f Fault) string {
	section := sectionOf[f]
	if section == "" {
		return ""
	}
	drawn := f == Size || f == NoAreas || f == Strange
	found := ""
	for k := range sheet.Steps {
		st := &sheet.Steps[k]
		switch d := st.Do; {
		case d.Set != nil && d.Set.Channel == channel && d.Set.Section == section:
			if _, area := d.Set.Values["area"].(plan.Area); area == drawn || found == "" {
				found = st.ID
				if area == drawn {
					return found
				}
			}
		case d.CopyDay != nil && section == "week" && d.CopyDay.Channel == channel && found == "":
			found = st.ID
		case d.Copy != nil && string(d.Copy.Section) == section && slices.Contains(d.Copy.To, channel) && found == "":
			found = st.ID
		}
	}
	return found
}
