package standin

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"wakefield.example/internal/onvif"
)

func init() {
	answers(false, map[string]operation{
		"tr2:GetProfiles":                         getProfiles2,
		"trt:GetProfiles":                         getProfiles1,
		"trt:GetProfile":                          getProfile1,
		"tr2:GetVideoEncoderConfigurations":       getEncoders2,
		"trt:GetVideoEncoderConfigurations":       getEncoders1,
		"trt:GetVideoEncoderConfiguration":        getEncoder1,
		"tr2:GetVideoEncoderConfigurationOptions": getOptions2,
		"trt:GetVideoEncoderConfigurationOptions": getOptions1,
		"tr2:GetVideoSourceConfigurations":        func(q *asked) (*onvif.Element, *onvif.Fault) { return q.sourceConfigurations("tr2"), nil },
		"trt:GetVideoSourceConfigurations":        func(q *asked) (*onvif.Element, *onvif.Fault) { return q.sourceConfigurations("trt"), nil },
		"trt:GetVideoSources":                     getVideoSources1,
		"trt:GetAudioSources":                     func(*asked) (*onvif.Element, *onvif.Fault) { return E("trt:GetAudioSourcesResponse"), nil },
		"tr2:GetStreamUri": func(q *asked) (*onvif.Element,
			*onvif.Fault) {
			return q.address("tr2:GetStreamUriResponse", q.stream)
		},
		"tr2:GetSnapshotUri": func(q *asked) (*onvif.Element, *onvif.Fault) {
			return q.address("tr2:GetSnapshotUriResponse", q.picture)
		},
		"trt:GetStreamUri": func(q *asked) (*onvif.Element, *onvif.Fault) { return q.address("trt:GetStreamUriResponse", q.stream) },
		"trt:GetSnapshotUri": func(q *asked) (*onvif.Element, *onvif.Fault) {
			return q.address("trt:GetSnapshotUriResponse", q.picture)
		},
		"tr2:GetServiceCapabilities":  func(*asked) (*onvif.Element, *onvif.Fault) { return capabilities("tr2", A("SnapshotUri", "true")), nil },
		"trt:GetServiceCapabilities":  func(*asked) (*onvif.Element, *onvif.Fault) { return capabilities("trt", A("SnapshotUri", "true")), nil },
		"tptz:GetPresets":             getPresets,
		"tptz:GetNodes":               func(*asked) (*onvif.Element, *onvif.Fault) { return E("tptz:GetNodesResponse"), nil },
		"tptz:GetConfigurations":      func(*asked) (*onvif.Element, *onvif.Fault) { return E("tptz:GetConfigurationsResponse"), nil },
		"tptz:GetServiceCapabilities": func(*asked) (*onvif.Element, *onvif.Fault) { return capabilities("tptz"), nil },
	})
	answers(true, map[string]operation{
		"tr2:SetVideoEncoderConfiguration": setEncoder,
		"trt:SetVideoEncoderConfiguration": setEncoder,
	})
}

func capabilities(prefix string, attrs ...onvif.Attr) *onvif.Element {
	e := E(prefix + ":Capabilities")
	for _, a := range attrs {
		e.CreateAttr(a.Name, a.Value)
	}
	return E(prefix+":GetServiceCapabilitiesResponse", e)
}

// profile finds a channel and which of its encoders a profile is of.
func (s *State) profile(token string) (*Channel, int) {
	for _, c := range s.Channels {
		for k := range c.Encoders {
			if profileToken(c, k) == token {
				return c, k
			}
		}
	}
	return nil, 0
}

// profileToken is the token of the profile of an encoder: VE3_main is in P3_main.
func profileToken(c *Channel, k int) string {
	return "P" + strings.TrimPrefix(c.Encoders[k].Token, "VE")
}

func (s *State) number(c *Channel) int { return slices.Index(s.Channels, c) + 1 }

// encoder finds an encoder by its token.
func (s *State) encoderOf(token string) *onvif.Encoder {
	for _, c := range s.Channels {
		for k := range c.Encoders {
			if c.Encoders[k].Token == token {
				return &c.Encoders[k]
			}
		}
	}
	return nil
}

func sourceConfiguration(name string, c *Channel) *onvif.Element {
	w, h := 1920, 1080
	if len(c.Encoders) > 0 {
		w, h = c.Encoders[0].Width, c.Encoders[0].Height
	}
	return E(name, A("token", "VSC"+c.Source[2:]), E("tt:Name", c.Name), E("tt:UseCount", strconv.Itoa(len(c.Encoders))),
		E("tt:SourceToken", c.Source), E("tt:Bounds", A("x", "0"), A("y", "0"), A("width", strconv.Itoa(w)), A("height", strconv.Itoa(h))))
}

func (q *asked) sourceConfigurations(prefix string) *onvif.Element {
	e := E(prefix + ":GetVideoSourceConfigurationsResponse")
	for _, c := range q.state.Channels {
		e.AddChild(sourceConfiguration(prefix+":Configurations", c))
	}
	return e
}

// analytics is the configuration of a channel's detection, with its rules and modules.
func analytics(name string, c *Channel) *onvif.Element {
	modules, rules := E("tt:AnalyticsEngineConfiguration"), E("tt:RuleEngineConfiguration")
	for _, m := range c.modules("tt:AnalyticsModule") {
		modules.AddChild(m)
	}
	for _, r := range c.Rules {
		rules.AddChild(r.element("tt:Rule"))
	}
	return E(name, A("token", "VAC"+c.Source[2:]), E("tt:Name", "Detection "+c.Source[2:]), E("tt:UseCount", "1"), modules, rules)
}

func getProfiles2(q *asked) (*onvif.Element, *onvif.Fault) {
	e := E("tr2:GetProfilesResponse")
	for _, c := range q.state.Channels {
		for k := range c.Encoders {
			in := E("tr2:Configurations", sourceConfiguration("tr2:VideoSource", c), c.Encoders[k].Element("tr2:VideoEncoder"))
			if c.Analytics && q.serves(onvif.Analytics) {
				in.AddChild(analytics("tr2:Analytics", c))
			}
			if len(c.Presets) > 0 {
				in.AddChild(E("tr2:PTZ", A("token", "PTZ"+c.Source[2:]), E("tt:Name", "PTZ"), E("tt:UseCount", "1"),
					E("tt:NodeToken", "NODE"+c.Source[2:])))
			}
			e.AddChild(E("tr2:Profiles", A("token", profileToken(c, k)), A("fixed", "true"), E("tr2:Name", profileToken(c, k)), in))
		}
	}
	return e, nil
}

func (q *asked) profile1(name string, c *Channel, k int) *onvif.Element {
	e := E(name, A("token", profileToken(c, k)), A("fixed", "true"), E("tt:Name", profileToken(c, k)),
		sourceConfiguration("tt:VideoSourceConfiguration", c), c.Encoders[k].Element1("tt:VideoEncoderConfiguration"))
	if c.Analytics && q.serves(onvif.Analytics) {
		e.AddChild(analytics("tt:VideoAnalyticsConfiguration", c))
	}
	if len(c.Presets) > 0 {
		e.AddChild(E("tt:PTZConfiguration", A("token", "PTZ"+c.Source[2:]), E("tt:Name", "PTZ"), E("tt:UseCount", "1"),
			E("tt:NodeToken", "NODE"+c.Source[2:])))
	}
	return e
}

// of1 tells whether media 1, which has no H.265, can tell of an encoder.
func of1(e *onvif.Encoder) bool { return e.Encoding != "H265" }

func getProfiles1(q *asked) (*onvif.Element, *onvif.Fault) {
	e := E("trt:GetProfilesResponse")
	for _, c := range q.state.Channels {
		for k := range c.Encoders {
			if of1(&c.Encoders[k]) {
				e.AddChild(q.profile1("trt:Profiles", c, k))
			}
		}
	}
	return e, nil
}

func getProfile1(q *asked) (*onvif.Element, *onvif.Fault) {
	c, k := q.state.profile(onvif.Text(q.in, "ProfileToken"))
	if c == nil || !of1(&c.Encoders[k]) {
		return nil, invalid("NoProfile", "There is no such profile")
	}
	return E("trt:GetProfileResponse", q.profile1("trt:Profile", c, k)), nil
}

func getEncoders2(q *asked) (*onvif.Element, *onvif.Fault) {
	e, wanted := E("tr2:GetVideoEncoderConfigurationsResponse"), onvif.Text(q.in, "ConfigurationToken")
	for _, c := range q.state.Channels {
		for k := range c.Encoders {
			if wanted == "" || wanted == c.Encoders[k].Token {
				e.AddChild(c.Encoders[k].Element("tr2:Configurations"))
			}
		}
	}
	return e, nil
}

func getEncoders1(q *asked) (*onvif.Element, *onvif.Fault) {
	e := E("trt:GetVideoEncoderConfigurationsResponse")
	for _, c := range q.state.Channels {
		for k := range c.Encoders {
			if of1(&c.Encoders[k]) {
				e.AddChild(c.Encoders[k].Element1("trt:Configurations"))
			}
		}
	}
	return e, nil
}

func getEncoder1(q *asked) (*onvif.Element, *onvif.Fault) {
	is := q.state.encoderOf(onvif.Text(q.in, "ConfigurationToken"))
	if is == nil || !of1(is) {
		return nil, invalid("NoConfig", "There is no such configuration")
	}
	return E("trt:GetVideoEncoderConfigurationResponse", is.Element1("trt:Configuration")), nil
}

// options are what an encoder can be set to.
func options(is *onvif.Encoder, h265 bool) (out []onvif.EncoderOptions) {
	sizes := [][2]int{{is.Width, is.Height}}
	for _, s := range [][2]int{{3840, 2160}, {2560, 1440}, {1920, 1080}, {1280, 720}, {704, 576}, {640, 360}} {
		if s[0]*s[1] <= 3840*2160 && !slices.Contains(sizes, s) {
			sizes = append(sizes, s)
		}
	}
	rates := []float64{30, 25, 20, 15, 12, 10, 8, 6, 5, 4, 3, 2, 1}
	if !slices.Contains(rates, is.FPS) {
		rates = append(rates, is.FPS)
	}
	slices.SortFunc(rates, func(a, b float64) int { return int(math.Copysign(1, b-a)) })
	for _, encoding := range []string{"H264", "H265"} {
		if encoding == "H264" || h265 {
			out = append(out, onvif.EncoderOptions{Encoding: encoding, Sizes: sizes, FrameRates: rates, KbpsMin: 32, KbpsMax: 32768, GovMin: 1,
				GovMax: 400, Constant: true})
		}
	}
	return out
}

func getOptions2(q *asked) (*onvif.Element, *onvif.Fault) {
	is := q.state.encoderOf(onvif.Text(q.in, "ConfigurationToken"))
	if is == nil {
		return nil, invalid("NoConfig", "There is no such configuration")
	}
	e := E("tr2:GetVideoEncoderConfigurationOptionsResponse")
	for _, o := range options(is, true) {
		e.AddChild(o.Element("tr2:Options"))
	}
	return e, nil
}

func getOptions1(q *asked) (*onvif.Element, *onvif.Fault) {
	is := q.state.encoderOf(onvif.Text(q.in, "ConfigurationToken"))
	if is == nil {
		return nil, invalid("NoConfig", "There is no such configuration")
	}
	return E("trt:GetVideoEncoderConfigurationOptionsResponse", onvif.Options1Element("trt:Options", options(is, false))), nil
}

// setEncoder sets an encoder, and refuses what is not among its options.
func setEncoder(q *asked) (*onvif.Element, *onvif.Fault) {
	is := q.state.encoderOf(onvif.At(q.in, "Configuration").SelectAttrValue("token", ""))
	if is == nil {
		return nil, invalid("NoConfig", "There is no such configuration")
	}
	wanted := onvif.EncoderOf(onvif.At(q.in, "Configuration"))
	done := E(string(onvif.ServiceOf(q.in.NamespaceURI())) + ":SetVideoEncoderConfigurationResponse")
	can := options(is, !q.has(Media1))
	at := slices.IndexFunc(can, func(o onvif.EncoderOptions) bool { return o.Encoding == wanted.Encoding })
	switch {
	case at < 0:
		return nil, invalid("ConfigModify", "The encoder has no "+wanted.Encoding)
	case !slices.Contains(can[at].Sizes, [2]int{wanted.Width, wanted.Height}):
		return nil, invalid("ConfigModify", "The encoder has no such size")
	case wanted.Gov < can[at].GovMin || wanted.Gov > can[at].GovMax:
		return nil, invalid("ConfigModify", "A keyframe comes every 1 to 400 frames")
	case q.has(Lies):
		return done, nil
	}
	if !slices.Contains(can[at].FrameRates, wanted.FPS) { // the next that it has
		for _, f := range can[at].FrameRates {
			if f >= wanted.FPS {
				wanted.FPS = f
			}
		}
	}
	if q.has(CameraFrames) {
		wanted.FPS = is.FPS
	}
	wanted.Kbps = min(max(wanted.Kbps, 32), 32768)
	wanted.Token, wanted.Name = is.Token, is.Name
	*is = wanted
	return done, nil
}

func getVideoSources1(q *asked) (*onvif.Element, *onvif.Fault) {
	e := E("trt:GetVideoSourcesResponse")
	for _, c := range q.state.Channels {
		w, h, f := 1920, 1080, 25.0
		if len(c.Encoders) > 0 {
			w, h, f = c.Encoders[0].Width, c.Encoders[0].Height, c.Encoders[0].FPS
		}
		e.AddChild(E("trt:VideoSources", A("token", c.Source), E("tt:Framerate", strconv.FormatFloat(f, 'f', -1, 64)),
			E("tt:Resolution", E("tt:Width", strconv.Itoa(w)), E("tt:Height", strconv.Itoa(h)))))
	}
	return e, nil
}

func (q *asked) stream(profile string) string  { return q.RTSP + "/" + profile }
func (q *asked) picture(profile string) string { return q.base + "/snapshot/" + profile }

// address says where something of a profile is to be had.
func (q *asked) address(name string, at func(profile string) string) (*onvif.Element, *onvif.Fault) {
	token := onvif.Text(q.in, "ProfileToken")
	if c, _ := q.state.profile(token); c == nil {
		return nil, invalid("NoProfile", "There is no such profile")
	}
	if strings.HasPrefix(name, "tr2") {
		return E(name, E("tr2:Uri", at(token))), nil
	}
	return E(name, E("trt:MediaUri", E("tt:Uri", at(token)), E("tt:InvalidAfterConnect", "false"), E("tt:InvalidAfterReboot", "false"),
		E("tt:Timeout", "PT0S"))), nil
}

func getPresets(q *asked) (*onvif.Element, *onvif.Fault) {
	c, _ := q.state.profile(onvif.Text(q.in, "ProfileToken"))
	if c == nil {
		return nil, invalid("NoProfile", "There is no such profile")
	}
	e := E("tptz:GetPresetsResponse")
	for k, name := range c.Presets {
		e.AddChild(E("tptz:Preset", A("token", strconv.Itoa(k+1)), E("tt:Name", name)))
	}
	return e, nil
}
