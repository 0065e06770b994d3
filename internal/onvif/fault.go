package onvif

import "strings"

// Fault is a refusal in a device's own words.
type Fault struct {
	Code    string // the most particular code, without its prefix, such as NotAuthorized
	Reason  string // in words, as the device says it
	Sender  bool   // whether it is the asker's doing
	Because string // the codes in between, joined
}

// Error says the device's reason.
func (f *Fault) Error() string {
	switch {
	case f.Reason != "" && f.Code != "":
		return f.Reason + " (" + f.Code + ")"
	case f.Reason != "":
		return f.Reason
	}
	return f.Code
}

// Has tells whether a code is among those of the fault.
func (f *Fault) Has(code string) bool { return f.Code == code || strings.Contains(f.Because, code) }

// FaultOf reads a fault; nil where the body is none.
func FaultOf(body *Element) *Fault {
	if body == nil || !Is(body, "s:Fault") {
		return nil
	}
	f := &Fault{Reason: Text(body, "Reason/Text")}
	var codes []string
	for code := At(body, "Code"); code != nil; code = code.SelectElement("Subcode") {
		_, local, prefixed := strings.Cut(Text(code, "Value"), ":")
		if !prefixed {
			local = Text(code, "Value")
		}
		codes = append(codes, local)
	}
	if len(codes) > 0 {
		f.Sender = codes[0] == "Sender"
		f.Code, f.Because = codes[len(codes)-1], strings.Join(codes, " ")
	}
	return f
}

// Element writes a fault. Because are the codes between Sender or Receiver and the particular one.
func (f *Fault) Element() *Element {
	first := "s:Receiver"
	if f.Sender {
		first = "s:Sender"
	}
	var within *Element
	codes := append(strings.Fields(f.Because), f.Code)
	for k := len(codes) - 1; k >= 0; k-- {
		if codes[k] == "" {
			continue
		}
		within = E("s:Subcode", E("s:Value", "ter:"+codes[k]), within)
	}
	return E("s:Fault", E("s:Code", E("s:Value", first), within),
		E("s:Reason", E("s:Text", Attr{"xml:lang", "en"}, f.Reason)))
}
