package table

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"wakefield.example/core/plan"
)

// streamColumns are the columns of one stream. A text in any of them gives the
// camera the stream; an empty codec takes it away.
func streamColumns(which plan.StreamName) []Column {
	title := map[plan.StreamName]string{plan.Main: "Main stream", plan.Sub: "Sub stream", plan.Third: "Third stream"}[which]
	column := func(id, name, unit string, numeric bool, get func(*plan.Stream) string, set func(*plan.Stream,
		string) error, choices ...string) Column {
		c := Column{ID: string(which) + "." + id, Title: name, Group: title, Unit: unit, Numeric: numeric, OfKind: true,
			get: func(_ *plan.Plan, c *plan.Channel) string {
				if s := c.Streams.Get(which); s != nil {
					return get(s)
				}
				return ""
			},
			set: func(_ *plan.Plan, c *plan.Channel, text string) error {
				s := c.Streams.Get(which).Clone()
				switch {
				case s == nil && text == "":
					return nil
				case id == "codec" && text == "" && (which != plan.Main || c.NoCamera):
					c.Streams = c.Streams.With(which, nil)
					return nil
				case s == nil:
					s = plan.PlainStream(which)
				}
				c.Streams = c.Streams.With(which, s)
				return set(s, text)
			}}
		if choices != nil {
			c.choices = fixed(choices...)
		}
		return c
	}
	return []Column{
		column("codec", "Codec", "", false, func(s *plan.Stream) string { return plan.Codecs.Name(s.Codec) }, setCodec, plan.Codecs.Names()...),
		column("size", "Resolution", "", false, func(s *plan.Stream) string { return fmt.Sprintf("%d×%d", s.Width, s.Height) }, setSize),
		column("fps", "Frames", "/s", true, func(s *plan.Stream) string { return figure(s.FPS) },
			func(s *plan.Stream, text string) error { return setNeeded(&s.FPS, text, "/s") }),
		column("gop", "Keyframe every", "s", true, func(s *plan.Stream) string { return figure(s.GOPSeconds) },
			func(s *plan.Stream, text string) error { return setNeeded(&s.GOPSeconds, text, "s") }),
		column("keyframe", "Keyframe", "kB", true, func(s *plan.Stream) string { return figure(s.KeyframeKB) },
			func(s *plan.Stream, text string) error { return setFloat(&s.KeyframeKB, text, "kB") }),
		column("rate", "Bitrate", "kbit/s", false, func(s *plan.Stream) string { return rateText(s.Rate) }, setRateCell),
		column("known", "Known from", "", false, getKnown, setKnown, "model", "guess", "datasheet", "surveyed", "measured"),
	}
}

var otherCodecNames = map[string]string{"avc": "h264", "hevc": "h265", "motionjpeg": "mjpeg", "jpeg": "mjpeg"}

func setCodec(s *plan.Stream, text string) error {
	id := strings.NewReplacer(".", "", " ", "", "-", "").Replace(strings.ToLower(text))
	if other, ok := otherCodecNames[id]; ok {
		id = other
	}
	if plan.Codecs.Name(id) == id {
		return fmt.Errorf("%q is none of %s", text, strings.Join(plan.Codecs.Names(), ", "))
	}
	s.Codec = id
	return nil
}

var sizePattern = regexp.MustCompile(`^(\d{1,5})\s*[x×X*]\s*(\d{1,5})$`)

func setSize(s *plan.Stream, text string) error {
	m := sizePattern.FindStringSubmatch(text)
	if m == nil {
		return fmt.Errorf("not a picture size: use 1920×1080")
	}
	s.Width, _ = strconv.Atoi(m[1])
	s.Height, _ = strconv.Atoi(m[2])
	return nil
}

// rateText writes a rate: "4096", "900–4200" (idle and moving), "quality 3, moderate", and
// after it what else there is: "adaptive", "at most 4000", "×1.6 all days 20:00-06:00".
func rateText(r plan.Rate) string {
	text := fmt.Sprintf("quality %d, %s", r.Quality, r.Scene)
	switch r.Kind {
	case "constant":
		text = figure(r.Kbps)
	case "variable":
		text = figure(r.IdleKbps) + "–" + figure(r.ActiveKbps)
	}
	return text + RateExtras(r)
}

// RateExtras is what a rate says beside its figures: ", adaptive, at most 4000".
func RateExtras(r plan.Rate) string {
	text := ""
	if r.Adaptive {
		text += ", adaptive"
	}
	if r.MaxKbps > 0 {
		text += ", at most " + figure(r.MaxKbps)
	}
	if r.Night != nil {
		text += ", ×" + figure(r.Night.Factor) + " " + plan.HoursText(r.Night.Hours.Blocks)
	}
	return text
}

var (
	modelPattern    = regexp.MustCompile(`^(?:model|quality)[ ,]*([1-5])?[ ,]*(still|moderate|busy)?$`)
	variablePattern = regexp.MustCompile(`^([0-9.,]+)\s*(?:–|-|—|to|/)\s*([0-9.,]+)$`)
	nightPattern    = regexp.MustCompile(`^(.*?)[ ,]*[×x*]\s*([0-9]+(?:[.,][0-9]+)?)\s+(?:at night\s+)?(.+)$`)
	mostPattern     = regexp.MustCompile(`^(.*?)[ ,]*\bat most\s+([0-9.,]+)$`)
)

// setRateCell reads what rateText writes. A bitrate that replaces a modelled one is a
// guess until something better is said of it.
func setRateCell(s *plan.Stream, text string) error {
	known := s.Rate.Known
	if known == "" {
		known = "guess"
	}
	plain := func(text string) string {
		return strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(strings.TrimSpace(text), "kbit/s"), "kbps"))
	}
	rest, r := strings.ToLower(text), plan.Rate{}
	if m := nightPattern.FindStringSubmatch(rest); m != nil {
		hours, err := plan.ReadHours(m[3])
		if err != nil {
			return err
		}
		r.Night = &plan.Night{Hours: plan.HourList{Blocks: hours}}
		if err := setFloat(&r.Night.Factor, m[2], ""); err != nil {
			return err
		}
		rest = m[1]
	}
	rest = plain(rest)
	if m := mostPattern.FindStringSubmatch(rest); m != nil {
		if err := setFloat(&r.MaxKbps, m[2], "kbit/s"); err != nil {
			return err
		}
		rest = plain(m[1])
	}
	if before, ok := strings.CutSuffix(rest, "adaptive"); ok {
		r.Adaptive, rest = true, strings.TrimRight(before, " ,")
	}
	if m := modelPattern.FindStringSubmatch(rest); m != nil {
		r.Kind, r.Quality, r.Scene = "modelled", 3, "moderate"
		if m[1] != "" {
			r.Quality, _ = strconv.Atoi(m[1])
		}
		if m[2] != "" {
			r.Scene = m[2]
		}
		s.Rate = r
		return nil
	}
	if r.Adaptive || r.MaxKbps > 0 {
		return fmt.Errorf("%q: adaptive, and at most, go with a modelled bitrate: quality 3, moderate, adaptive", text)
	}
	r.Known = known
	if m := variablePattern.FindStringSubmatch(rest); m != nil {
		r.Kind = "variable"
		if err := setFloat(&r.IdleKbps, m[1], "kbit/s"); err != nil {
			return err
		}
		if err := setFloat(&r.ActiveKbps, m[2], "kbit/s"); err != nil {
			return err
		}
		s.Rate = r
		return nil
	}
	r.Kind = "constant"
	if err := setFloat(&r.Kbps, rest, "kbit/s"); err != nil || r.Kbps == 0 {
		return fmt.Errorf("%q is no bitrate; write 4096, 900–4200 for idle and moving, or quality 3, moderate", text)
	}
	if r.Night != nil {
		return fmt.Errorf("%q: a constant bitrate is the same at night; write 900–4200 for idle and moving", text)
	}
	s.Rate = r
	return nil
}

func getKnown(s *plan.Stream) string {
	if s.Rate.Kind == "modelled" {
		return "model"
	}
	return s.Rate.Known
}

func setKnown(s *plan.Stream, text string) error {
	text = strings.ToLower(text)
	switch {
	case text == "model":
		if s.Rate.Kind != "modelled" {
			s.Rate = plan.Rate{Kind: "modelled", Quality: 3, Scene: "moderate"}
		}
	case s.Rate.Kind == "modelled":
		return fmt.Errorf("the bitrate is modelled; write a bitrate to say where it comes from")
	case !slices.Contains([]string{"guess", "datasheet", "surveyed", "measured"}, text):
		return fmt.Errorf("%q is none of model, guess, datasheet, surveyed, measured", text)
	default:
		s.Rate.Known = text
	}
	return nil
}
