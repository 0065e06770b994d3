package standin

import (
	"slices"
	"strconv"
	"time"

	"wakefield.example/internal/onvif"
)

func init() {
	answers(false, map[string]operation{
		"trc:GetRecordings":             getRecordings,
		"trc:GetRecordingConfiguration": getRecordingConfiguration,
		"trc:GetRecordingJobs":          getJobs,
		"trc:GetRecordingJobState":      getJobState,
		"trc:GetServiceCapabilities": func(q *asked) (*onvif.Element, *onvif.Fault) {
			return capabilities("trc", A("DynamicRecordings", "false"), A("Encoding", "H264 H265"), A("EventRecording", "true"),
				A("ScheduledRecording", strconv.FormatBool(q.serves(onvif.Schedule)))), nil
		},
		"tse:GetRecordingInformation": func(q *asked) (*onvif.Element, *onvif.Fault) {
			for k := range q.state.Recordings {
				if r := &q.state.Recordings[k]; r.Token == onvif.Text(q.in, "RecordingToken") {
					return E("tse:GetRecordingInformationResponse", q.information("tse:RecordingInformation", r)), nil
				}
			}
			return nil, invalid("InvalidToken", "There is no such recording")
		},
		"tse:GetRecordingSummary": getSummary,
		"tse:FindRecordings": func(*asked) (*onvif.Element, *onvif.Fault) {
			return E("tse:FindRecordingsResponse", E("tse:SearchToken", "SEARCH1")), nil
		},
		"tse:GetRecordingSearchResults": searchResults,
		"tse:EndSearch": func(q *asked) (*onvif.Element, *onvif.Fault) {
			return E("tse:EndSearchResponse", E("tse:Endpoint", q.said(time.Now()))), nil
		},
		"tse:GetServiceCapabilities": func(*asked) (*onvif.Element, *onvif.Fault) {
			return capabilities("tse", A("MetadataSearch", "false")), nil
		},
	})
	answers(true, map[string]operation{
		"trc:SetRecordingConfiguration":    setRecording,
		"trc:CreateRecordingJob":           createJob,
		"trc:SetRecordingJobConfiguration": setJob,
		"trc:DeleteRecordingJob":           deleteJob,
	})
}

func (r *Recording) source() *onvif.Element {
	return E("tt:Source", E("tt:SourceId", r.Source), E("tt:Name", r.Name), E("tt:Location", r.Location), E("tt:Description", r.Description),
		E("tt:Address", r.Address))
}

func (r *Recording) configuration(name string) *onvif.Element {
	return E(name, r.source(), E("tt:Content", r.Content), E("tt:MaximumRetentionTime", r.AtMost))
}

func getRecordings(q *asked) (*onvif.Element, *onvif.Fault) {
	e := E("trc:GetRecordingsResponse")
	for k := range q.state.Recordings {
		r := &q.state.Recordings[k]
		e.AddChild(E("trc:RecordingItem", E("tt:RecordingToken", r.Token), r.configuration("tt:Configuration"),
			E("tt:Tracks", E("tt:Track", E("tt:TrackToken", "VIDEO001"),
				E("tt:Configuration", E("tt:TrackType", "Video"), E("tt:Description", "Video"))))))
	}
	return e, nil
}

func (q *asked) recording() *Recording {
	token := onvif.Text(q.in, "RecordingToken")
	for k := range q.state.Recordings {
		if q.state.Recordings[k].Token == token {
			return &q.state.Recordings[k]
		}
	}
	return nil
}

func getRecordingConfiguration(q *asked) (*onvif.Element, *onvif.Fault) {
	r := q.recording()
	if r == nil {
		return nil, invalid("NoRecording", "There is no such recording")
	}
	return E("trc:GetRecordingConfigurationResponse", r.configuration("trc:RecordingConfiguration")), nil
}

func setRecording(q *asked) (*onvif.Element, *onvif.Fault) {
	r, of := q.recording(), onvif.At(q.in, "RecordingConfiguration")
	if r == nil || of == nil {
		return nil, invalid("NoRecording", "There is no such recording")
	}
	if _, err := onvif.SecondsOf(onvif.Text(of, "MaximumRetentionTime")); err != nil {
		return nil, invalid("BadConfiguration", err.Error())
	}
	r.Name, r.AtMost = onvif.Text(of, "Source/Name"), onvif.Text(of, "MaximumRetentionTime")
	return E("trc:SetRecordingConfigurationResponse"), nil
}

func getJobs(q *asked) (*onvif.Element, *onvif.Fault) {
	e := E("trc:GetRecordingJobsResponse")
	for _, j := range q.state.Jobs {
		e.AddChild(E("trc:JobItem", E("tt:JobToken", j.Token), j.Configuration("tt:JobConfiguration")))
	}
	return e, nil
}

func getJobState(q *asked) (*onvif.Element, *onvif.Fault) {
	for _, j := range q.state.Jobs {
		if j.Token == onvif.Text(q.in, "JobToken") {
			state := "Idle"
			if j.Active {
				state = "Active"
			}
			return E("trc:GetRecordingJobStateResponse", E("trc:State", E("tt:RecordingToken", j.Recording), E("tt:State", state))), nil
		}
	}
	return nil, invalid("NoRecordingJob", "There is no such job")
}

// wantedJob reads a job that is to be.
func (q *asked) wantedJob(token string) (j onvif.Job, fault *onvif.Fault) {
	of := onvif.At(q.in, "JobConfiguration")
	if of == nil {
		return j, invalid("BadConfiguration", "There is no configuration")
	}
	j = onvif.JobOf(token, of)
	known := func(list []Recording) bool {
		return slices.ContainsFunc(list, func(r Recording) bool { return r.Token == j.Recording })
	}
	switch c, _ := q.state.profile(j.Profile); {
	case !known(q.state.Recordings):
		return j, invalid("NoRecording", "There is no such recording")
	case c == nil:
		return j, invalid("BadConfiguration", "There is no such profile")
	case j.Schedule == "":
	case !q.serves(onvif.Schedule):
		return j, invalid("BadConfiguration", "Jobs follow no schedules here")
	case !slices.ContainsFunc(q.state.Schedules, func(s onvif.Timetable) bool { return s.Token == j.Schedule }):
		return j, invalid("BadConfiguration", "There is no such schedule")
	}
	return j, nil
}

func createJob(q *asked) (*onvif.Element, *onvif.Fault) {
	j, fault := q.wantedJob("")
	if fault != nil {
		return nil, fault
	}
	j.Token = q.state.make("JOB")
	q.state.Jobs = append(q.state.Jobs, j)
	return E("trc:CreateRecordingJobResponse", E("trc:JobToken", j.Token), j.Configuration("trc:JobConfiguration")), nil
}

func setJob(q *asked) (*onvif.Element, *onvif.Fault) {
	token := onvif.Text(q.in, "JobToken")
	j, fault := q.wantedJob(token)
	if fault != nil {
		return nil, fault
	}
	for k := range q.state.Jobs {
		if q.state.Jobs[k].Token == token {
			q.state.Jobs[k] = j
			return E("trc:SetRecordingJobConfigurationResponse", j.Configuration("trc:JobConfiguration")), nil
		}
	}
	return nil, invalid("NoRecordingJob", "There is no such job")
}

func deleteJob(q *asked) (*onvif.Element, *onvif.Fault) {
	token, n := onvif.Text(q.in, "JobToken"), len(q.state.Jobs)
	q.state.Jobs = slices.DeleteFunc(q.state.Jobs, func(j onvif.Job) bool { return j.Token == token })
	if len(q.state.Jobs) == n {
		return nil, invalid("NoRecordingJob", "There is no such job")
	}
	return E("trc:DeleteRecordingJobResponse"), nil
}

// reach is from when to when there is footage: as far back as the disks or the age limit leave it. The stand-in has been recording
// for a year.
func (r *Recording) reach() (from, to time.Time) {
	days := min(r.Days, 365)
	if s, err := onvif.SecondsOf(r.AtMost); err == nil && s > 0 {
		days = min(days, s/86400)
	}
	to = time.Now().Truncate(time.Second)
	return to.Add(-time.Duration(days * 24 * float64(time.Hour))).Truncate(time.Second), to
}

func (q *asked) information(name string, r *Recording) *onvif.Element {
	from, to := r.reach()
	return E(name, E("tt:RecordingToken", r.Token), r.source(), E("tt:EarliestRecording", q.said(from)), E("tt:LatestRecording", q.said(to)),
		E("tt:Content", r.Content), E("tt:Track", E("tt:TrackToken", "VIDEO001"), E("tt:TrackType", "Video"), E("tt:Description", "Video"),
			E("tt:DataFrom", q.said(from)), E("tt:DataTo", q.said(to))), E("tt:RecordingStatus", "Recording"))
}

func getSummary(q *asked) (*onvif.Element, *onvif.Fault) {
	var first, last time.Time
	for k := range q.state.Recordings {
		from, to := q.state.Recordings[k].reach()
		if first.IsZero() || from.Before(first) {
			first = from
		}
		last = to
	}
	return E("tse:GetRecordingSummaryResponse", E("tse:Summary", E("tt:DataFrom", q.said(first)), E("tt:DataUntil", q.said(last)),
		E("tt:NumberRecordings", strconv.Itoa(len(q.state.Recordings))))), nil
}

func searchResults(q *asked) (*onvif.Element, *onvif.Fault) {
	list := E("tse:ResultList", E("tt:SearchState", "Completed"))
	for k := range q.state.Recordings {
		list.AddChild(q.information("tt:RecordingInformation", &q.state.Recordings[k]))
	}
	return E("tse:GetRecordingSearchResultsResponse", list), nil
}
