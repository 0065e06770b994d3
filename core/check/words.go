package check

import "wakefield/core/estimate"

// ofSeveral is what rules say of several channels, which they find on each.
var ofSeveral = map[string]string{
	"detection-off":       "%d channels record on motion, but their detection is off.",
	"blind-hours":         "%d channels record on motion in hours in which their detection is off.",
	"no-area":             "%d channels have detection on, but no detection area is drawn.",
	"untied":              "Motion on %d channels is tied to no recording, not even their own.",
	"alarm-without-input": "%d channels wait for an alarm, but no alarm input records them.",
	"missing-stream":      "%d channels are to write a stream that their camera does not have.",
	"empty-records":       "%d channels have no camera, but are set to record.",
	"nothing-recorded":    "%d channels record nothing at times, though their footage must be kept.",
	"keyframe-gap":        "On %d channels a person can cross the picture unseen between keyframes.",
	"pre-beyond-buffer":   "%d channels are to keep more before an event than their recorder can hold back.",
	"post-too-short":      "%d channels keep so little after motion ends that one visit becomes several clips.",
	"audio":               "%d channels record audio.",
	"above-at-most":       "%d channels may be kept for some days only, and only the recorder's age limit enforces that.",
	"areas-but-off":       "%d channels have areas drawn, but their detection is off.",
	"walk-unnoticed":      "%d walks are never noticed.",
	"first-seconds-lost":  "The first seconds of %d walks are not kept.",
	"reach-short":         "%d walks come from beyond where they are large enough to be noticed.",
	"patch-passes":        "What moves in %d patches starts recordings.",
	"set-at-camera":       "The detection of %d channels must be set on the cameras themselves.",
	"no-events":           "%d channels record on motion, but their cameras tell the recorder of none.",
	"likely-misses":       "%d channels miss many wanted events, with no continuous recording as a fallback.",
}

// decisions says whose decision a finding is that comes without a fix.
var decisions = map[string]string{
	"no-area":               "For you to do, at the camera: draw where it is to look, then enter in Kit how many areas there are.",
	"area-hidden":           "For you to decide: draw the ignored area smaller, or take the watched one away.",
	"walk-unnoticed":        "For you to decide: an area where they walk, a smaller size or a shorter duration there.",
	"first-seconds-lost":    "For you to decide: an area farther out, or a recorder that can hold more seconds back.",
	"patch-passes":          "For you to decide: draw where to look, and leave that out.",
	"missing-stream":        "For you to decide: give the camera that stream in Kit, or paint another duty.",
	"nothing-recorded":      "For the customer to decide: whether nothing need be recorded then. If so, accept it.",
	"alarm-without-input":   "For you to decide: which alarm input records it, or another duty.",
	"effect-not-admitted":   "For you to decide: paint a duty that listens, or let it record nothing here.",
	"tie-never-acts":        "For you to decide: untie it, or give it what it lacks.",
	"too-many-messages":     "For you to decide: fewer causes, other hours, or more that may be read.",
	"mostly-held-back":      "For you to decide: a shorter interval, or another receiver for what must not be held back. If one in a while is enough, accept it.",
	"message-quiet":         "For the customer to decide: whom to tell in these hours.",
	"sounder-at-night":      "For the customer to decide: whether it may be heard at night. If so, accept it.",
	"monitor-cut-short":     "For you to decide: fewer causes on this monitor, a shorter time for each, or a second monitor.",
	"camera-away":           "For you to decide: fewer causes that send it, a shorter time, or a camera that stays.",
	"stills-incomplete":     "For you to decide: what triggers them, or a still at fixed times.",
	"copy-never-catches-up": "For you to decide: fewer channels or causes, a lower copy, or a faster uplink.",
	"copy-late":             "For you to decide: a lower copy, a faster uplink, or a recorder that is harder to take away.",
	"copy-unwatched":        "For you to decide: have the line watched where the copies arrive, or tell somebody by another way.",
	"loss-untold":           "For you to decide: whom to tell.",
	"no-tamper-contact":     "For you to decide: a contact in the recorder's housing, on Triggers, What it causes.",
	"contact-unknown":       "For you to do, at the site: look, and enter it on Triggers, What it causes.",
	"intake":                "For you to decide: a recorder that takes in more, fewer cameras on this one, or lower bitrates.",
	"throughput":            "For you to decide: faster drives, or less written in the busiest hour.",
	"licences":              "For the customer to decide: more licences, or fewer cameras.",
	"channels":              "For you to decide: give it a free number in Kit, or move it to another recorder.",
	"too-few-drives":        "For you to decide: more drives, or another RAID level.",
	"below-at-least":        "For the customer to decide: a larger quota, more or larger drives, or fewer days required.",
	"worst-below-at-least":  "For the customer to decide: a larger quota, more or larger drives, or fewer days required.",
	"short-on-dates":        "For the customer to decide: more drives, or fewer days in the weeks around that date.",
	"above-at-most":         "For you to do, at the recorder: set the age limit, and see that it deletes.",
	"workload":              "For you to decide: drives rated for more, or more of them.",
	"keyframe-gap":          "For you to do, at the camera: shorten the keyframe interval.",
	"frames-beyond-camera":  "For you to decide: a duty with fewer frames, or a camera that sends more.",
	"likely-misses":         "For you to decide: a cheap base layer, or better detection.",
	"guessed-activities":    "For you to decide: whether to measure them.",
	"night-unsaid":          "For you to do, at the camera: measure a clip taken at night, in Kit.",
}

// gates says which gate of the course loses what a rule is about.
var gates = map[string]estimate.GateName{
	"detection-off": estimate.GateOn, "areas-but-off": estimate.GateOn, "no-events": estimate.GateOn,
	"no-area": estimate.GateArea, "area-hidden": estimate.GateArea,
	"walk-unnoticed": estimate.GateLarge, "area-too-small": estimate.GateLarge, "reach-short": estimate.GateLarge,
	"blind-hours":   estimate.GateHours,
	"likely-misses": estimate.GateDetector, "untied": estimate.GateTied,
}
