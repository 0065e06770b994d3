package compare

import "wakefield.example/core/plan"

// phrase is what a member is called, and how its values are said.
type phrase struct {
	what    string
	unit    string
	names   plan.Choices // of its values
	absent  string       // what it means where nothing is said; "none" where this is empty
	on, off string       // of a switch
	drawn   bool         // whether it is told only as drawn otherwise
}

// phrases are what the members of the format are called, by the struct they are of and their name.
var phrases = map[string]phrase{
	"Plan.offsite": {what: "copy off site"}, "Plan.prices": {what: "prices of drives"},
	"Prices.currency": {what: "currency"}, "Prices.drives": {what: "drives"},
	"Site.name": {what: "name"}, "Site.customer": {what: "customer"}, "Site.address": {what: "address"}, "Site.contact": {what: "contact"},
	"Site.notes": {what: "notes"}, "Site.wording": {what: "wording of papers"}, "Site.timeZone": {what: "time zone"},
	"Site.specialDays": {what: "special days"},

	"Kind.name": {what: "name"}, "Kind.streams": {}, "Kind.audioKbps": {what: "audio", unit: "kbit/s"},

	"Duty.name": {what: "name"}, "Duty.mark": {what: "mark", absent: "as it writes"}, "Duty.base": {what: "base layer"},
	"Duty.event":  {what: "event layer"},
	"Base.stream": {what: "stream", names: plan.StreamChoices}, "Base.keyframesOnly": {on: "keyframes only", off: "all frames"},
	"Base.fps": {what: "frames", unit: "a second", absent: "all"}, "Base.quality": {what: "quality, steps", absent: "as the stream"},
	"Base.percent": {what: "bitrate", unit: "%", absent: "as the stream"},
	"Event.stream": {what: "stream", names: plan.StreamChoices}, "Event.on": {what: "on"}, "Event.match": {what: "match", absent: "any"},
	"Event.fps": {what: "frames", unit: "a second", absent: "all"}, "Event.quality": {what: "quality, steps", absent: "as the stream"},
	"Event.percent": {what: "bitrate", unit: "%", absent: "as the stream"},

	"Week.name": {what: "name"}, "Week.week": {what: "week"},

	"Activity.name": {what: "name"}, "Activity.known": {what: "known from", names: plan.ActivitiesKnown},
	"Activity.meanSeconds":      {what: "length of an event", unit: "s"},
	"Activity.otherwisePerHour": {what: "otherwise", unit: "an hour", absent: "0"}, "Activity.blocks": {what: "how often"},
	"Activity.groups": {what: "groups"},
	"Groups.size":     {what: "size", unit: "events"}, "Groups.withinSeconds": {what: "within", unit: "s"},

	"Object.name": {what: "name"}, "Object.widthM": {what: "width", unit: "m"}, "Object.heightM": {what: "height", unit: "m"},
	"Object.metresPerSecond": {what: "speed", unit: "m/s"},

	"Recorder.name": {what: "name"}, "Recorder.channels": {what: "channels"}, "Recorder.licences": {what: "licences", absent: "all"},
	"Recorder.ingestMbps":      {what: "intake", unit: "Mbit/s"},
	"Recorder.preSecondsLimit": {what: "pre-event limit", unit: "s"}, "Recorder.driveMBps": {what: "writes to drives", unit: "MB/s"},
	"Recorder.address": {what: "address"}, "Recorder.takes": {what: "takes"}, "Recorder.words": {what: "word"}, "Word.name": {what: "word"},
	"Word.duty":         {what: "duty"},
	"Takes.stepMinutes": {what: "times on steps of", unit: "min", absent: "any minute"}, "Takes.periodsPerDay": {what: "periods a day",
		absent: "any number of"}, "Takes.layers": {what: "layers", names: plan.LayersAtOnce, absent: "both at once"},
	"Takes.preSeconds": {what: "pre-event", unit: "s", absent: "any"}, "Takes.postSeconds": {what: "post-event", unit: "s", absent: "any"},
	"Takes.framesPerSecond":  {what: "frames a second", absent: "any"},
	"Takes.sensitivitySteps": {what: "steps of sensitivity", absent: "any number of"},
	"Takes.areas":            {what: "areas", names: plan.AreasTaken, absent: "any way"},
	"Takes.gridColumns":      {what: "columns of the grid", absent: "22"}, "Takes.gridRows": {what: "rows of the grid", absent: "18"},
	"Takes.copies": {what: "copies", absent: "all"},
	"Pool.name":    {what: "name"}, "Pool.drives": {what: "drives"}, "Pool.layout": {what: "layout", names: plan.Layouts},
	"Pool.hotSpares":      {what: "hot spares", absent: "0"},
	"Pool.reservePercent": {what: "reserve", unit: "%", absent: "0"},

	"Channel.number": {what: "number"}, "Channel.name": {what: "name"}, "Channel.group": {what: "group"},
	"Channel.recorder": {what: "recorder"}, "Channel.pool": {what: "pool"},
	"Channel.noCamera": {on: "no camera", off: "a camera"}, "Channel.kind": {what: "camera kind"}, "Channel.streams": {},
	"Channel.audioKbps":  {what: "audio", unit: "kbit/s"},
	"Channel.preSeconds": {what: "pre-event", unit: "s", absent: "0"}, "Channel.postSeconds": {what: "post-event", unit: "s", absent: "0"},
	"Channel.alarmPreSeconds":  {what: "pre-event of alarms", unit: "s", absent: "as for motion"},
	"Channel.alarmPostSeconds": {what: "post-event of alarms", unit: "s", absent: "as for motion"},
	"Channel.activity":         {what: "activity"}, "Channel.nuisance": {what: "nuisance"}, "Channel.detection": {},
	"Channel.events": {what: "detection set", absent: "at the recorder",
		names: plan.Choices{{ID: "both", Name: "at the recorder"}, {ID: "out", Name: "at the camera"}, {ID: "none", Name: "nowhere"}}},
	"Channel.scene": {what: "scene"}, "Channel.movable": {what: "presets"}, "Channel.stills": {what: "snapshots"}, "Channel.keep": {},
	"Channel.address": {what: "address"}, "Channel.streamsBy": {what: "frames, size and bitrate decided by", absent: "the recorder"},
	"Channel.matters": {what: "matters", unit: "of 3", absent: "2 of 3"}, "Channel.week": {what: "week"},
	"Streams.main": {what: "main stream"}, "Streams.sub": {what: "sub stream"}, "Streams.third": {what: "third stream"},
	"Stream.codec": {what: "codec", names: plan.Codecs}, "Stream.width": {what: "width", unit: "pixels"},
	"Stream.height": {what: "height", unit: "pixels"}, "Stream.fps": {what: "frames", unit: "a second"},
	"Stream.gopSeconds": {what: "keyframe interval", unit: "s"}, "Stream.keyframeKB": {what: "keyframe", unit: "kB"}, "Stream.rate": {},
	"Rate.kind": {what: "bitrate", names: plan.RateKinds}, "Rate.kbps": {what: "bitrate", unit: "kbit/s"},
	"Rate.idleKbps": {what: "bitrate idle", unit: "kbit/s"}, "Rate.activeKbps": {what: "bitrate active", unit: "kbit/s"},
	"Rate.known": {what: "bitrate known from", names: plan.RatesKnown}, "Rate.quality": {what: "quality"},
	"Rate.scene": {what: "scene", names: plan.Scenes}, "Rate.adaptive": {on: "adaptive", off: "not adaptive"},
	"Rate.maxKbps": {what: "at most", unit: "kbit/s", absent: "any bitrate"}, "Rate.night": {what: "night"},
	"Night.hours": {what: "hours"}, "Night.factor": {what: "factor"},
	"Detection.on": {on: "detection on", off: "detection off"}, "Detection.by": {what: "detection", names: plan.Detectors},
	"Detection.hours": {what: "detection"}, "Detection.minSeconds": {what: "shortest motion", unit: "s", absent: "0"},
	"Detection.reliability": {what: "reliability", absent: "as usual"},
	"Detection.catch":       {what: "chance that motion is noticed", absent: "as the walks say"},
	"Detection.recordsSelf": {on: "own motion records it", off: "own motion does not record it"}, "Detection.areas": {what: "detection areas"},
	"Area.name": {what: "name"}, "Area.ignore": {on: "ignored", off: "watched"}, "Area.points": {drawn: true}, "Area.cells": {drawn: true},
	"Area.smallest":           {what: "smallest object"},
	"Area.sensitivityPercent": {what: "sensitivity", unit: "%"},
	"Area.minSeconds":         {what: "shortest motion", unit: "s", absent: "as elsewhere"}, "Area.hours": {what: "watches"},
	"Smallest.percent": {what: "smallest object", unit: "%"}, "Smallest.of": {what: "share", names: plan.SmallestOf},
	"Keep.atLeastDays": {what: "keep at least", unit: "days"}, "Keep.atMostDays": {what: "delete after", unit: "days"},
	"Keep.quotaGB":  {what: "quota", unit: "GB"},
	"Scene.picture": {drawn: true}, "Scene.verticalDegrees": {what: "angle of view", unit: "degrees"}, "Scene.people": {drawn: true},
	"Scene.cameraMetres": {what: "height of the camera", unit: "m"},
	"Scene.walks":        {what: "walk"}, "Scene.patches": {what: "patch"},
	"Walk.name": {what: "name"}, "Walk.object": {what: "object"}, "Walk.metresPerSecond": {what: "speed", unit: "m/s",
		absent: "as its object"}, "Walk.sharePercent": {what: "share", unit: "%"}, "Walk.points": {drawn: true},
	"Patch.name": {what: "name"}, "Patch.activity": {what: "activity"}, "Patch.blobPercent": {what: "what moves covers", unit: "%"},
	"Patch.points": {drawn: true},
	"Movable.home": {what: "rests at"}, "Movable.presets": {what: "preset"}, "Preset.name": {what: "name"},
	"Stills.mode": {what: "snapshots", names: plan.StillModes}, "Stills.everySeconds": {what: "at most one every", unit: "s"},
	"Stills.width": {what: "width", unit: "pixels"}, "Stills.height": {what: "height", unit: "pixels"},
	"Stills.quality": {what: "quality"}, "Stills.kilobytes": {what: "size", unit: "kB"}, "Stills.hours": {what: "hours"},

	"AlarmInput.name": {what: "name"}, "AlarmInput.recorder": {what: "recorder"}, "AlarmInput.activity": {what: "activity"},
	"AlarmInput.contact": {what: "contact", names: plan.Contacts, absent: "not looked at"},
	"AlarmInput.guards":  {what: "guards"},
	"CallButton.name":    {what: "name"}, "CallButton.pressesPerWeek": {what: "pressed", unit: "times a week"},
	"CallButton.holdSeconds": {what: "records for", unit: "s"}, "CallButton.records": {what: "records"}, "CallButton.stream": {what: "stream",
		names: plan.StreamChoices, absent: "the main stream"}, "CallButton.fps": {what: "frames", unit: "a second", absent: "all"},
	"Message.name": {what: "name"}, "Message.to": {what: "to"}, "Message.atMostEverySeconds": {what: "at most one every", unit: "s"},
	"Message.hours":      {what: "goes out"},
	"Message.still":      {on: "with a snapshot", off: "without a snapshot"},
	"Message.mostPerDay": {what: "read at most", unit: "a day", absent: "30"},
	"Output.name":        {what: "name"}, "Output.recorder": {what: "recorder"}, "Output.kind": {what: "kind", names: plan.OutputKinds},
	"Output.holdSeconds": {what: "on for", unit: "s"},
	"Output.prolonged":   {on: "prolonged by every trigger", off: "not prolonged"}, "Output.hours": {what: "goes on"},
	"Monitor.name": {what: "name"}, "Monitor.dwellSeconds": {what: "shows for", unit: "s"},
	"Offsite.uplinkKbps": {what: "uplink", unit: "kbit/s"}, "Offsite.hours": {what: "copies"},
	"Offsite.copy":               {what: "copies", names: plan.Copies, absent: "footage as recorded"},
	"Offsite.watched":            {on: "line watched", off: "line not watched"},
	"Offsite.takenWithinSeconds": {what: "time a thief needs", unit: "s"},
	"Accepted.finding":           {what: "finding"}, "Accepted.reason": {what: "reason"}, "Accepted.by": {what: "by"},
	"Accepted.on": {what: "on"},
}
