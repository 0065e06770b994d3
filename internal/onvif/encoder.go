package onvif

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// Encoder is the configuration of a video encoder.
type Encoder struct {
	Token, Name   string
	Encoding      string // H264, H265 or JPEG, as media 2 writes it
	Width, Height int
	FPS           float64
	Kbps          int // the limit of its bitrate; 0 where none is told
	Constant      bool
	Gov           int // frames from one keyframe to the next; 0 where it is not told
	Quality       float64
	Profile       string
}

func whole(n int) string     { return strconv.Itoa(n) }
func plain(n float64) string { return strconv.FormatFloat(n, 'f', -1, 64) }
func truth(b bool) string    { return strconv.FormatBool(b) }
func size(w, h int) *Element {
	return E("tt:Resolution", E("tt:Width", whole(w)), E("tt:Height", whole(h)))
}
func span(n string, a, b float64) *Element {
	return E(n, E("tt:Min", plain(a)), E("tt:Max", plain(b)))
}

// Element writes it as media 2 does, tt:VideoEncoder2Configuration.
func (c Encoder) Element(name string) *Element {
	e := E(name, Attr{"token", c.Token}, Attr{"GovLength", whole(c.Gov)})
	if c.Profile != "" {
		e.CreateAttr("Profile", c.Profile)
	}
	for _, in := range []*Element{E("tt:Name", c.Name), E("tt:UseCount", "1"), E("tt:Encoding", c.Encoding), size(c.Width, c.Height),
		E("tt:RateControl", Attr{"ConstantBitRate", truth(c.Constant)}, E("tt:FrameRateLimit", plain(c.FPS)),
			E("tt:BitrateLimit", whole(c.Kbps))),
		E("tt:Quality", plain(c.Quality))} {
		e.AddChild(in)
	}
	return e
}

// Element1 writes it as media 1 does, tt:VideoEncoderConfiguration, which has whole frame rates and no H.265.
func (c Encoder) Element1(name string) *Element {
	e := E(name, Attr{"token", c.Token}, E("tt:Name", c.Name), E("tt:UseCount", "1"), E("tt:Encoding", c.Encoding), size(c.Width, c.Height),
		E("tt:Quality", plain(c.Quality)), E("tt:RateControl", E("tt:FrameRateLimit", whole(int(math.Round(c.FPS)))),
			E("tt:EncodingInterval", "1"), E("tt:BitrateLimit", whole(c.Kbps))))
	if c.Encoding == "H264" {
		profile := c.Profile
		if profile == "" {
			profile = "Main"
		}
		e.AddChild(E("tt:H264", E("tt:GovLength", whole(c.Gov)), E("tt:H264Profile", profile)))
	}
	e.AddChild(E("tt:Multicast", E("tt:Address", E("tt:Type", "IPv4"), E("tt:IPv4Address", "0.0.0.0")), E("tt:Port", "0"), E("tt:TTL", "1"),
		E("tt:AutoStart", "false")))
	e.AddChild(E("tt:SessionTimeout", "PT60S"))
	return e
}

// EncoderOf reads a configuration, of media 2 or media 1.
func EncoderOf(e *Element) Encoder {
	c := Encoder{Token: e.SelectAttrValue("token", ""), Name: Text(e, "Name"), Encoding: strings.ToUpper(Text(e, "Encoding")),
		Width: Whole(e, "Resolution/Width"), Height: Whole(e, "Resolution/Height"), Kbps: Whole(e, "RateControl/BitrateLimit"),
		Profile: e.SelectAttrValue("Profile", Text(e, "H264/H264Profile"))}
	c.FPS, _ = Number(e, "RateControl/FrameRateLimit")
	c.Quality, _ = Number(e, "Quality")
	if interval, ok := Number(e, "RateControl/EncodingInterval"); ok && interval > 1 {
		c.FPS /= interval // of media 1: only each so many'th frame is encoded
	}
	if rate := At(e, "RateControl"); rate != nil {
		c.Constant = Truth(rate.SelectAttrValue("ConstantBitRate", ""))
	}
	gov, err := strconv.Atoi(e.SelectAttrValue("GovLength", Text(e, "H264/GovLength")))
	if err == nil && gov > 0 {
		c.Gov = gov
	}
	return c
}

// EncoderOptions are what an encoder could do with one encoding.
type EncoderOptions struct {
	Encoding         string
	Sizes            [][2]int
	FrameRates       []float64 // from most to least; as a range where Stepless
	Stepless         bool
	KbpsMin, KbpsMax float64 // 0 where it is not told
	GovMin, GovMax   int
	Constant         bool // whether it can hold its bitrate
}

// Element writes them as media 2 does.
func (o EncoderOptions) Element(name string) *Element {
	var rates []string
	for _, f := range o.FrameRates {
		rates = append(rates, plain(f))
	}
	e := E(name, Attr{"GovLengthRange", whole(o.GovMin) + " " + whole(o.GovMax)}, Attr{"FrameRatesSupported", strings.Join(rates, " ")},
		Attr{"ConstantBitRateSupported", truth(o.Constant)}, E("tt:Encoding", o.Encoding), span("tt:QualityRange", 1, 5))
	for _, s := range o.Sizes {
		e.AddChild(E("tt:ResolutionsAvailable", E("tt:Width", whole(s[0])), E("tt:Height", whole(s[1]))))
	}
	e.AddChild(span("tt:BitrateRange", o.KbpsMin, o.KbpsMax))
	return e
}

// OptionsOf reads options of media 2.
func OptionsOf(e *Element) EncoderOptions {
	o := EncoderOptions{Encoding: strings.ToUpper(Text(e, "Encoding")), Constant: Truth(e.SelectAttrValue("ConstantBitRateSupported", ""))}
	for _, r := range e.SelectElements("ResolutionsAvailable") {
		o.Sizes = append(o.Sizes, [2]int{Whole(r, "Width"), Whole(r, "Height")})
	}
	for f := range strings.FieldsSeq(e.SelectAttrValue("FrameRatesSupported", "")) {
		if n, err := strconv.ParseFloat(f, 64); err == nil && n > 0 {
			o.FrameRates = append(o.FrameRates, n)
		}
	}
	slices.SortFunc(o.FrameRates, func(a, b float64) int { return int(math.Copysign(1, b-a)) })
	o.KbpsMin, _ = Number(e, "BitrateRange/Min")
	o.KbpsMax, _ = Number(e, "BitrateRange/Max")
	if gov := strings.Fields(e.SelectAttrValue("GovLengthRange", "")); len(gov) == 2 {
		o.GovMin, _ = strconv.Atoi(gov[0])
		o.GovMax, _ = strconv.Atoi(gov[1])
	}
	return o
}

// Options1Of reads options of media 1, of H.264 and of JPEG.
func Options1Of(e *Element) (out []EncoderOptions) {
	for _, encoding := range []string{"H264", "JPEG"} {
		of := At(e, encoding)
		if of == nil {
			continue
		}
		o := EncoderOptions{Encoding: encoding, Stepless: true, GovMin: Whole(of, "GovLengthRange/Min"), GovMax: Whole(of, "GovLengthRange/Max")}
		for _, r := range of.SelectElements("ResolutionsAvailable") {
			o.Sizes = append(o.Sizes, [2]int{Whole(r, "Width"), Whole(r, "Height")})
		}
		least, _ := Number(of, "FrameRateRange/Min")
		most, ok := Number(of, "FrameRateRange/Max")
		if ok {
			o.FrameRates = []float64{most, max(least, 1)}
		}
		extended := At(e, "Extension/"+encoding)
		o.KbpsMin, _ = Number(extended, "BitrateRange/Min")
		o.KbpsMax, _ = Number(extended, "BitrateRange/Max")
		out = append(out, o)
	}
	return out
}

// Options1Element writes options as media 1 does.
func Options1Element(name string, list []EncoderOptions) *Element {
	e := E(name, span("tt:QualityRange", 1, 5))
	extension := E("tt:Extension")
	for _, o := range list {
		if o.Encoding != "H264" {
			continue
		}
		fill := func(rate *Element) *Element {
			h := E("tt:H264")
			for _, s := range o.Sizes {
				h.AddChild(E("tt:ResolutionsAvailable", E("tt:Width", whole(s[0])), E("tt:Height", whole(s[1]))))
			}
			h.AddChild(span("tt:GovLengthRange", float64(o.GovMin), float64(o.GovMax)))
			h.AddChild(span("tt:FrameRateRange", 1, o.FrameRates[0]))
			h.AddChild(span("tt:EncodingIntervalRange", 1, 1))
			h.AddChild(E("tt:H264ProfilesSupported", "Main"))
			if rate != nil {
				h.AddChild(rate)
			}
			return h
		}
		e.AddChild(fill(nil))
		extension.AddChild(fill(span("tt:BitrateRange", o.KbpsMin, o.KbpsMax)))
	}
	e.AddChild(extension)
	return e
}
