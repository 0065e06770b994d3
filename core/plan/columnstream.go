package plan

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// PlainStream is a stream of which nothing is known yet: what cameras are usually
// set to, with a modelled bitrate.
func PlainStream(which Which) *Stream {
	s := &Stream{Codec: "h265", Width: 1920, Height: 1080, FPS: 15, GOPSeconds: 2, Rate: Rate{Kind: "modelled", Quality: 3, Scene: "moderate"}}
	if which != Main {
		s.Codec, s.Width, s.Height, s.FPS = "h264", 640, 360, 8
	}
	return s
}

// streamColumns are the columns of one stream. A text in any of them gives the
// camera the stream; an empty codec takes it away.
func streamColumns(which Which) []Column {
	title := map[Which]string{Main: "Main stream", Sub: "Sub stream", Third: "Third stream"}[which]
	column := func(id, name, unit string, numeric bool, get func(*Stream) string, set func(*Stream, string) error, choices ...string) Column {
		c := Column{ID: string(which) + "." + id, Title: name, Group: title, Unit: unit, Numeric: numeric, OfKind: true,
			get: func(_ *Plan, c *Channel) string {
				if s := c.Streams.Get(which); s != nil {
					return get(s)
				}
				return ""
			},
			set: func(_ *Plan, c *Channel, text string) error {
				s := copied(c.Streams.Get(which))
				switch {
				case s == nil && text == "":
					return nil
				case id == "codec" && text == "" && (which != Main || c.NoCamera):
					c.Streams = c.Streams.With(which, nil)
					return nil
				case s == nil:
					s = PlainStream(which)
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
		column("codec", "Codec", "", false, func(s *Stream) string { return codecName(s.Codec) }, setCodec, "H.264", "H.265", "AV1", "MJPEG"),
		column("size", "Size", "", false, func(s *Stream) string { return fmt.Sprintf("%d×%d", s.Width, s.Height) }, setSize),
		column("fps", "Frames", "/s", true, func(s *Stream) string { return figure(s.FPS) },
			func(s *Stream, text string) error { return setFloat(&s.FPS, text, "/s") }),
		column("gop", "Keyframe every", "s", true, func(s *Stream) string { return figure(s.GOPSeconds) },
			func(s *Stream, text string) error { return setFloat(&s.GOPSeconds, text, "s") }),
		column("keyframe", "Keyframe", "kB", true, func(s *Stream) string { return figure(s.KeyframeKB) },
			func(s *Stream, text string) error { return setFloat(&s.KeyframeKB, text, "kB") }),
		column("rate", "Bitrate", "kbit/s", false, func(s *Stream) string { return s.Rate.cell() }, setRateCell),
		column("known", "Known from", "", false, getKnown, setKnown, "model", "guess", "datasheet", "surveyed", "measured"),
	}
}

var codecNames = map[string]string{"h264": "H.264", "h265": "H.265", "av1": "AV1", "mjpeg": "MJPEG"}

func codecName(id string) string {
	if name, ok := codecNames[id]; ok {
		return name
	}
	return id
}

var otherCodecNames = map[string]string{"avc": "h264", "hevc": "h265", "motionjpeg": "mjpeg", "jpeg": "mjpeg"}

func setCodec(s *Stream, text string) error {
	id := strings.NewReplacer(".", "", " ", "", "-", "").Replace(strings.ToLower(text))
	if other, ok := otherCodecNames[id]; ok {
		id = other
	}
	if _, ok := codecNames[id]; !ok {
		return fmt.Errorf("%q is none of H.264, H.265, AV1, MJPEG", text)
	}
	s.Codec = id
	return nil
}

var sizePattern = regexp.MustCompile(`^(\d{1,5})\s*[x×X*]\s*(\d{1,5})$`)

func setSize(s *Stream, text string) error {
	m := sizePattern.FindStringSubmatch(text)
	if m == nil {
		return fmt.Errorf("not a picture size: use 1920×1080")
	}
	s.Width, _ = strconv.Atoi(m[1])
	s.Height, _ = strconv.Atoi(m[2])
	return nil
}

// cell writes a rate: "4096", "900–4200" (still and moving), "quality 3, moderate", and
// after it what else there is: "adaptive", "at most 4000", "×1.6 all days 20:00-06:00".
func (r Rate) cell() string {
	text := fmt.Sprintf("quality %d, %s", r.Quality, r.Scene)
	switch r.Kind {
	case "constant":
		text = figure(r.Kbps)
	case "variable":
		text = figure(r.IdleKbps) + "–" + figure(r.ActiveKbps)
	}
	return text + r.besides()
}

// besides is what else a rate says.
func (r Rate) besides() string {
	text := ""
	if r.Adaptive {
		text += ", adaptive"
	}
	if r.MaxKbps > 0 {
		text += ", at most " + figure(r.MaxKbps)
	}
	if r.Night != nil {
		text += ", ×" + figure(r.Night.Factor) + " " + HoursText(r.Night.Hours.Blocks)
	}
	return text
}

var (
	modelPattern    = regexp.MustCompile(`^(?:model|quality)[ ,]*([1-5])?[ ,]*(still|moderate|busy)?$`)
	variablePattern = regexp.MustCompile(`^([0-9.,]+)\s*(?:–|-|—|to|/)\s*([0-9.,]+)$`)
	nightPattern    = regexp.MustCompile(`^(.*?)[ ,]*[×x*]\s*([0-9]+(?:[.,][0-9]+)?)\s+(?:at night\s+)?(.+)$`)
	mostPattern     = regexp.MustCompile(`^(.*?)[ ,]*\bat most\s+([0-9.,]+)$`)
)

// setRateCell reads what cell writes. A bitrate that replaces a modelled one is a
// guess until something better is said of it.
func setRateCell(s *Stream, text string) error {
	known := s.Rate.Known
	if known == "" {
		known = "guess"
	}
	plain := func(text string) string {
		return strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(strings.TrimSpace(text), "kbit/s"), "kbps"))
	}
	rest, r := strings.ToLower(text), Rate{}
	if m := nightPattern.FindStringSubmatch(rest); m != nil {
		hours, err := ReadHours(m[3])
		if err != nil {
			return err
		}
		r.Night = &Night{Hours: HourList{hours}}
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
		return fmt.Errorf("%q is no bitrate; write 4096, 900–4200 for still and moving, or quality 3, moderate", text)
	}
	if r.Night != nil {
		return fmt.Errorf("%q: a constant bitrate is the same at night; write 900–4200 for still and moving", text)
	}
	s.Rate = r
	return nil
}

func getKnown(s *Stream) string {
	if s.Rate.Kind == "modelled" {
		return "model"
	}
	return s.Rate.Known
}

func setKnown(s *Stream, text string) error {
	text = strings.ToLower(text)
	switch {
	case text == "model":
		if s.Rate.Kind != "modelled" {
			s.Rate = Rate{Kind: "modelled", Quality: 3, Scene: "moderate"}
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
