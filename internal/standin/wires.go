package standin

import "wakefield.example/internal/onvif"

func init() {
	answers(false, map[string]operation{
		"tmd:GetVideoSources": func(q *asked) (*onvif.Element, *onvif.Fault) {
			e := E("tmd:GetVideoSourcesResponse")
			for _, c := range q.state.Channels {
				e.AddChild(E("tmd:Token", c.Source))
			}
			return e, nil
		},
		"tmd:GetDigitalInputs": func(q *asked) (*onvif.Element, *onvif.Fault) {
			e := E("tmd:GetDigitalInputsResponse")
			for _, in := range q.state.Inputs {
				e.AddChild(E("tmd:DigitalInputs", A("token", in.Token), A("IdleState", in.Idle)))
			}
			return e, nil
		},
		"tmd:GetRelayOutputs":        func(q *asked) (*onvif.Element, *onvif.Fault) { return q.relays("tmd:"), nil },
		"tds:GetRelayOutputs":        func(q *asked) (*onvif.Element, *onvif.Fault) { return q.relays("tds:"), nil },
		"tmd:GetServiceCapabilities": func(*asked) (*onvif.Element, *onvif.Fault) { return capabilities("tmd", A("DigitalInputs", "1")), nil },
	})
	answers(true, map[string]operation{
		"tmd:SetDigitalInputConfigurations": setInputs,
		"tmd:SetRelayOutputSettings":        setRelay,
	})
}

func (q *asked) relays(prefix string) *onvif.Element {
	e := E(prefix + "GetRelayOutputsResponse")
	for _, o := range q.state.Outputs {
		e.AddChild(E(prefix+"RelayOutputs", A("token", o.Token), E("tt:Properties", E("tt:Mode", o.Mode), E("tt:DelayTime", o.Delay),
			E("tt:IdleState", o.Idle))))
	}
	return e
}

func setInputs(q *asked) (*onvif.Element, *onvif.Fault) {
	for _, e := range onvif.All(q.in, "DigitalInputs") {
		found := false
		for k := range q.state.Inputs {
			if in := &q.state.Inputs[k]; in.Token == e.SelectAttrValue("token", "") {
				in.Idle, found = e.SelectAttrValue("IdleState", in.Idle), true
			}
		}
		if !found {
			return nil, invalid("InvalidToken", "There is no such input")
		}
	}
	return E("tmd:SetDigitalInputConfigurationsResponse"), nil
}

func setRelay(q *asked) (*onvif.Element, *onvif.Fault) {
	of := onvif.At(q.in, "RelayOutput")
	for k := range q.state.Outputs {
		if o := &q.state.Outputs[k]; of != nil && o.Token == of.SelectAttrValue("token", "") {
			o.Mode, o.Delay, o.Idle = onvif.Text(of, "Properties/Mode"), onvif.Text(of, "Properties/DelayTime"), onvif.Text(of,
				"Properties/IdleState")
			return E("tmd:SetRelayOutputSettingsResponse"), nil
		}
	}
	return nil, invalid("RelayToken", "There is no such output")
}
