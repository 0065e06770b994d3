package onvif

import (
	"bytes"
	"encoding/base64"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/seeded"
)

// TestEnvelopesAreWrittenAsTheStandardsSay holds a message against one that was written by hand from them.
func TestEnvelopesAreWrittenAsTheStandardsSay(t *testing.T) {
	at := time.Date(2026, 11, 30, 12, 0, 0, 0, time.UTC)
	got := string(Envelope([]*Element{UsernameToken("fitter", "userpassword", []byte("0123456789abcdef"), at)},
		E("tr2:GetProfiles", E("tr2:Type", "All"))))
	want := `<?xml version="1.0" encoding="UTF-8"?><s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope"` +
		` xmlns:tr2="http://www.onvif.org/ver20/media/wsdl"` +
		` xmlns:wsse="http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd"` +
		` xmlns:wsu="http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-utility-1.0.xsd">` +
		`<s:Header><wsse:Security s:mustUnderstand="true"><wsse:UsernameToken><wsse:Username>fitter</wsse:Username>` +
		`<wsse:Password Type="http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-username-token-profile-1.0#PasswordDigest">` +
		digest([]byte("0123456789abcdef"), "2026-11-30T12:00:00.000Z", "userpassword") + `</wsse:Password>` +
		`<wsse:Nonce EncodingType="http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-soap-message-security-1.0#Base64Binary">` +
		`MDEyMzQ1Njc4OWFiY2RlZg==</wsse:Nonce><wsu:Created>2026-11-30T12:00:00.000Z</wsu:Created></wsse:UsernameToken></wsse:Security>` +
		`</s:Header><s:Body><tr2:GetProfiles><tr2:Type>All</tr2:Type></tr2:GetProfiles></s:Body></s:Envelope>`
	if got != want {
		t.Errorf("\n%s\nis not\n%s", got, want)
	}
}

// TestTheDigestIsThatOfTheProfile uses the example of ONVIF's programmer's guide.
func TestTheDigestIsThatOfTheProfile(t *testing.T) {
	nonce, err := base64.StdEncoding.DecodeString("LKqI6G/AikKCQrN0zqZFlg==")
	if err != nil {
		t.Fatal(err)
	}
	if got := digest(nonce, "2010-09-16T07:50:45Z", "userpassword"); got != "tuOSpGlFlIXsozq4HFNeeGeFLEI=" {
		t.Error(got)
	}
}

// TestWhoKnowsThePasswordProvesIt reads back what it writes.
func TestWhoKnowsThePasswordProvesIt(t *testing.T) {
	m, err := Read(bytes.NewReader(Envelope([]*Element{UsernameToken("a", "right", []byte("nonce"), time.Now())}, E("tds:GetUsers"))))
	if err != nil {
		t.Fatal(err)
	}
	token := TokenOf(m.Header)
	if token == nil || token.User != "a" || !token.Proves("right") || token.Proves("wrong") || time.Since(token.Created).Abs() > time.Minute {
		t.Errorf("%+v", token)
	}
}

// TestAnyPrefixIsRead reads a message whose prefixes are others than ours, with white space where XML allows it.
func TestAnyPrefixIsRead(t *testing.T) {
	m, err := Read(strings.NewReader(`<?xml version='1.0' encoding="ISO-8859-1"?>
		<!-- old --><SOAP-ENV:Envelope xmlns:SOAP-ENV="http://www.w3.org/2003/05/soap-envelope"><SOAP-ENV:Body >
		<Reply xmlns="http://www.onvif.org/ver10/device/wsdl"><Manufacturer> F` + "\xfc" + `nf </Manufacturer></Reply></SOAP-ENV:Body></SOAP-ENV:Envelope>`))
	if err != nil {
		t.Fatal(err)
	}
	if !Is(m.Body, "tds:Reply") || Text(m.Body, "Manufacturer") != "Fünf" {
		t.Errorf("%s %q", m.Body.Tag, Text(m.Body, "Manufacturer"))
	}
}

// TestWhatIsTooMuchIsRefused bounds time and memory, and says why.
func TestWhatIsTooMuchIsRefused(t *testing.T) {
	for want, message := range map[string]string{
		"deep":           strings.Repeat("<a>", 200) + strings.Repeat("</a>", 200),
		"elements":       "<a>" + strings.Repeat("<b/>", mostElements) + "</a>",
		"document type":  `<?xml version="1.0"?><!DOCTYPE l [<!ENTITY l0 "ha"><!ENTITY l1 "&l0;&l0;&l0;">]><a>&l1;</a>`,
		"no XML":         "HTTP is not it",
		"no SOAP":        "<html><body>Sign in</body></html>",
		"without a body": `<s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope"></s:Envelope>`,
		"larger":         "<a>" + strings.Repeat(" ", MostBytes) + "</a>",
		"empty":          "",
	} {
		if _, err := Read(strings.NewReader(message)); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s: %v", want, err)
		}
	}
}

// TestFaultsSayWhoseFaultItIs reads back what it writes.
func TestFaultsSayWhoseFaultItIs(t *testing.T) {
	f := &Fault{Sender: true, Because: "InvalidArgVal", Code: "NoProfile", Reason: "There is no such profile"}
	m, err := Read(bytes.NewReader(Envelope(nil, f.Element())))
	if err != nil {
		t.Fatal(err)
	}
	got := FaultOf(m.Body)
	if got == nil || got.Code != f.Code || got.Reason != f.Reason || !got.Sender || !got.Has("InvalidArgVal") || got.Has("NotAuthorized") {
		t.Errorf("%+v", got)
	}
	if FaultOf(E("tds:GetUsersResponse")) != nil {
		t.Error("an answer is taken for a fault")
	}
}

// TestConfigurationsComeBack writes and reads encoders, options, jobs and notices.
func TestConfigurationsComeBack(t *testing.T) {
	c := Encoder{Token: "t", Name: "n", Encoding: "H265", Width: 2560, Height: 1440, FPS: 12.5, Kbps: 4096,
		Constant: true, Gov: 25, Quality: 3}
	if got := EncoderOf(c.Element("tr2:Configurations")); got != c {
		t.Errorf("%+v", got)
	}
	c1 := Encoder{Token: "t", Name: "n", Encoding: "H264", Width: 704, Height: 576, FPS: 8, Kbps: 448, Gov: 16, Quality: 3, Profile: "Main"}
	if got := EncoderOf(c1.Element1("trt:Configurations")); got != c1 {
		t.Errorf("%+v", got)
	}
	o := OptionsOf(EncoderOptions{Encoding: "H264", Sizes: [][2]int{{1920, 1080}}, FrameRates: []float64{5, 25}, KbpsMin: 32, KbpsMax: 8192,
		GovMin: 1, GovMax: 400, Constant: true}.Element("tr2:Options"))
	if o.FrameRates[0] != 25 || o.KbpsMax != 8192 || o.GovMax != 400 || o.Sizes[0] != [2]int{1920, 1080} || !o.Constant {
		t.Errorf("%+v", o)
	}
	j := Job{Token: "j", Recording: "r", Active: true, Priority: 2, Profile: "p", Schedule: "s",
		Filter: &Filter{[]Heard{{TopicInput, map[string]string{"InputToken": "IN1"}}}, 5,
			12.5}}
	got := JobOf("j", j.Configuration("trc:JobConfiguration"))
	if got.Filter == nil || got.Filter.Before != 5 || got.Filter.After != 12.5 || got.Filter.Heard[0].Topic != TopicInput ||
		got.Filter.Heard[0].Source["InputToken"] != "IN1" || got.Schedule != "s" ||
		got.Profile != "p" || !got.Active || got.Priority != 2 {
		t.Errorf("%+v", got)
	}
	at := time.Date(2026, 11, 30, 1, 2, 3, 456e6, time.UTC)
	n := Notice{TopicMotionAlarm, at, "Changed", map[string]string{"Source": "V1"}, map[string]string{"State": "true"}}
	m, err := Read(bytes.NewReader(Envelope(nil, E("tev:PullMessagesResponse", n.Element()))))
	if err != nil {
		t.Fatal(err)
	}
	back, err := NoticeOf(At(m.Body, "NotificationMessage"), time.UTC)
	if err != nil || back.Topic != n.Topic || !back.At.Equal(at) || back.Source["Source"] != "V1" || back.Data["State"] != "true" {
		t.Errorf("%+v, %v", back, err)
	}
}

// TestTopicsAreReadByTheirNamespace takes a foreign prefix for what it stands for.
func TestTopicsAreReadByTheirNamespace(t *testing.T) {
	m, err := Read(strings.NewReader(`<e:Envelope xmlns:e="http://www.w3.org/2003/05/soap-envelope"><e:Body><x xmlns:q="http://www.onvif.org/ver10/topics">
		<m><Topic>q:Device/Trigger/DigitalInput</Topic></m></x></e:Body></e:Envelope>`))
	if err != nil {
		t.Fatal(err)
	}
	if n, err := NoticeOf(At(m.Body, "m"), time.UTC); err != nil || n.Topic != TopicInput {
		t.Errorf("%+v, %v", n, err)
	}
}

// TestDurationsAndMoments reads what XML Schema allows.
func TestDurationsAndMoments(t *testing.T) {
	for text, want := range map[string]float64{"PT5S": 5, "P1DT2H": 93600, "PT0.5S": 0.5, "P30D": 30 * 86400, "PT1M30S": 90,
		"-PT5S": -5, "P1Y": 365 * 86400} {
		if got, err := SecondsOf(text); err != nil || got != want {
			t.Errorf("%s is %v, %v", text, got, err)
		}
	}
	for _, text := range []string{"", "5", "P", "PT", "PT5", "five", "P1H"} {
		if got, err := SecondsOf(text); err == nil {
			t.Errorf("%q is %v", text, got)
		}
	}
	faroe := time.FixedZone("", 3600)
	for text, want := range map[string]string{"2026-11-30T12:00:00Z": "2026-11-30T12:00:00Z",
		"2026-11-30T12:00:00.5+02:00": "2026-11-30T10:00:00Z",
		"2026-11-30T12:00:00":         "2026-11-30T11:00:00Z"} {
		if got, err := Moment(text, faroe); err != nil || got.UTC().Truncate(time.Second).Format(time.RFC3339) != want {
			t.Errorf("%s is %v, %v", text, got, err)
		}
	}
}

// TestCellsAreThoseOfTheSpecification uses the example of ONVIF's analytics specification: all but the border of a grid of 22 × 18.
func TestCellsAreThoseOfTheSpecification(t *testing.T) {
	bits := make([]byte, (22*18+7)/8)
	for k := range 22 * 18 {
		if column, row := k%22, k/22; column > 0 && column < 21 && row > 0 && row < 17 {
			bits[k/8] |= 0x80 >> (k % 8)
		}
	}
	got, err := CellsOf(ActiveCells(bits), 22*18)
	if err != nil || !bytes.Equal(got, bits) {
		t.Errorf("%x, %v", got, err)
	}
	if all, err := CellsOf("zwA=", 22*18); err != nil || len(all) != 50 || all[0] != 0 { // 50 times the same byte
		t.Errorf("%x, %v", all, err)
	}
	if _, err := CellsOf("gg==", 8); err == nil {
		t.Error("cells that end in the middle are read")
	}
}

// FuzzCells packs and unpacks any bytes, and unpacks what nobody packed.
func FuzzCells(fuzz *testing.F) {
	f := seeded.Of(fuzz, 3000)
	f.Add([]byte{0xFF, 0xFF, 0, 0, 1})
	f.Add([]byte{0x80, 0x81, 7})
	f.Fuzz(func(t *testing.T, bits []byte) {
		if len(bits) == 0 {
			return
		}
		if got, err := unpackBits(packBits(bits), len(bits)); err != nil || !bytes.Equal(got, bits) {
			t.Errorf("%x comes back as %x, %v", bits, got, err)
		}
		if got, err := CellsOf(base64.StdEncoding.EncodeToString(bits), 396); err == nil && len(got) != 50 {
			t.Errorf("%d bytes for 396 cells", len(got))
		}
	})
}

// FuzzRead reads messages that nobody wrote. What is read can be written, and reads the same.
func FuzzRead(fuzz *testing.F) {
	f := seeded.Of(fuzz, 3000)
	f.Add(Envelope(nil, E("tds:GetServicesResponse", E("tds:Service", E("tds:XAddr", "http://10.0.0.1/onvif")))))
	f.Add(Envelope(nil, (&Fault{Code: "NotAuthorized", Reason: "no"}).Element()))
	f.Add(Probe("urn:uuid:1"))
	f.Add([]byte(`<a xmlns:a="b"><a:c d="&#x41;"/></a>`))
	f.Fuzz(func(t *testing.T, data []byte) {
		m, err := Read(bytes.NewReader(data))
		if err != nil || m.Body == nil {
			return
		}
		FaultOf(m.Body)
		EncoderOf(m.Body)
		OptionsOf(m.Body)
		JobOf("", m.Body)
		if _, err := NoticeOf(m.Body, time.UTC); err == nil {
			Items(m.Body)
		}
		MatchesOf(data, "urn:uuid:1")
		if id := ProbeOf(data); len(id) > len(data) {
			t.Errorf("an id %q", id)
		}
	})
}
