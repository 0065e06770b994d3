package standin

import (
	"fmt"
	"strings"
	"time"

	"wakefield.example/internal/onvif"
)

// pull is a subscription from which somebody pulls.
type pull struct {
	ends   time.Time
	queue  []onvif.Notice
	signal chan struct{} // has one in it where there is something to pull
}

// Of subscriptions.
const (
	mostPulls   = 50
	mostWaiting = 1000 // notices of one; the oldest go
	usualPull   = time.Minute
)

func init() {
	answers(false, map[string]operation{
		"tev:CreatePullPointSubscription": createPull,
		"tev:GetEventProperties":          eventProperties,
		"tev:Renew":                       renewPull,
		"tev:Unsubscribe":                 endPull,
		"tev:SetSynchronizationPoint": func(*asked) (*onvif.Element, *onvif.Fault) {
			return E("tev:SetSynchronizationPointResponse"), nil
		},
		"tev:GetServiceCapabilities": func(*asked) (*onvif.Element, *onvif.Fault) {
			return capabilities("tev", A("WSSubscriptionPolicySupport", "false"), A("MaxPullPoints", "50")), nil
		},
	})
}

// lasting is how long a subscription is asked for.
func lasting(text string) time.Duration {
	if s, err := onvif.SecondsOf(text); err == nil && s > 0 {
		return time.Duration(min(s, 3600) * float64(time.Second))
	}
	return usualPull
}

func createPull(q *asked) (*onvif.Element, *onvif.Fault) {
	for id, p := range q.pulls {
		if time.Now().After(p.ends) {
			delete(q.pulls, id)
		}
	}
	if len(q.pulls) >= mostPulls {
		return nil, &onvif.Fault{Sender: true, Code: "SubscribeCreationFailedFault", Reason: "There are fifty subscriptions already"}
	}
	q.pulled++
	id := fmt.Sprint(q.pulled)
	p := &pull{ends: time.Now().Add(lasting(onvif.Text(q.in, "InitialTerminationTime"))), signal: make(chan struct{}, 1)}
	q.pulls[id] = p
	for _, s := range q.scenes {
		p.add(s.notices(q.Device, "Initialized")...)
	}
	return E("tev:CreatePullPointSubscriptionResponse", E("tev:SubscriptionReference", E("wsa:Address", q.base+"/onvif/pull/"+id)),
		E("wsnt:CurrentTime", q.said(time.Now())), E("wsnt:TerminationTime", q.said(p.ends))), nil
}

func (p *pull) add(list ...onvif.Notice) {
	p.queue = append(p.queue, list...)
	if n := len(p.queue); n > mostWaiting {
		p.queue = p.queue[n-mostWaiting:]
	}
	if len(p.queue) > 0 {
		select {
		case p.signal <- struct{}{}:
		default:
		}
	}
}

// tell tells all that pull. The lock is held.
func (d *Device) tell(list ...onvif.Notice) {
	for _, p := range d.pulls {
		p.add(list...)
	}
}

func (q *asked) pull() (*pull, string, *onvif.Fault) {
	id := strings.TrimPrefix(q.r.URL.Path, "/onvif/pull/")
	p := q.pulls[id]
	if p == nil || time.Now().After(p.ends) {
		return nil, id, &onvif.Fault{Sender: true, Code: "ResourceUnknownFault", Reason: "There is no such subscription"}
	}
	return p, id, nil
}

func renewPull(q *asked) (*onvif.Element, *onvif.Fault) {
	p, _, fault := q.pull()
	if fault != nil {
		return nil, fault
	}
	p.ends = time.Now().Add(lasting(onvif.Text(q.in, "TerminationTime")))
	return E("wsnt:RenewResponse", E("wsnt:TerminationTime", q.said(p.ends)), E("wsnt:CurrentTime", q.said(time.Now()))), nil
}

func endPull(q *asked) (*onvif.Element, *onvif.Fault) {
	_, id, fault := q.pull()
	if fault != nil {
		return nil, fault
	}
	delete(q.pulls, id)
	return E("wsnt:UnsubscribeResponse"), nil
}

// pullMessages waits until there is something to tell, or as long as it is asked to.
func (d *Device) pullMessages(q *asked) (*onvif.Element, *onvif.Fault) {
	d.mu.Lock()
	p, _, fault := q.pull()
	if fault == nil {
		p.ends = time.Now().Add(usualPull)
	}
	d.mu.Unlock()
	if fault != nil {
		return nil, fault
	}
	patience := 5 * time.Second
	if s, err := onvif.SecondsOf(onvif.Text(q.in, "Timeout")); err == nil && s >= 0 {
		patience = time.Duration(min(s, 60) * float64(time.Second))
	}
	late := time.NewTimer(patience)
	defer late.Stop()
	select {
	case <-p.signal:
	case <-late.C:
	case <-q.r.Context().Done():
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	n := len(p.queue)
	if most := onvif.Whole(q.in, "MessageLimit"); most > 0 {
		n = min(n, most)
	}
	e := E("tev:PullMessagesResponse", E("tev:CurrentTime", d.said(time.Now())), E("tev:TerminationTime", d.said(p.ends)))
	for _, notice := range p.queue[:n] {
		m := notice.Element()
		if d.has(ZonelessTimes) {
			of := onvif.At(m, "Message/Message")
			of.CreateAttr("UtcTime", strings.TrimSuffix(of.SelectAttrValue("UtcTime", ""), "Z"))
		}
		e.AddChild(m)
	}
	if p.queue = p.queue[n:]; len(p.queue) > 0 {
		p.add()
	}
	return e, nil
}

func eventProperties(*asked) (*onvif.Element, *onvif.Fault) {
	message := func(source, data string) *onvif.Element {
		return E("tt:MessageDescription", A("IsProperty", "true"),
			E("tt:Source", E("tt:SimpleItemDescription", A("Name", source), A("Type", "tt:ReferenceToken"))),
			E("tt:Data", E("tt:SimpleItemDescription", A("Name", data), A("Type", "xs:boolean"))))
	}
	return E("tev:GetEventPropertiesResponse",
		E("tev:TopicNamespaceLocation", "http://www.onvif.org/onvif/ver10/topics/topicns.xml"), E("wsnt:FixedTopicSet", "true"),
		E("wstop:TopicSet",
			E("tns1:VideoSource", E("MotionAlarm", A("wstop:topic", "true"), message("Source", "State"))),
			E("tns1:Device", E("Trigger", E("DigitalInput", A("wstop:topic", "true"), message("InputToken", "LogicalState"))))),
		E("wsnt:TopicExpressionDialect", onvif.Concrete),
		E("wsnt:TopicExpressionDialect", "http://docs.oasis-open.org/wsn/t-1/TopicExpression/Concrete"),
		E("tev:MessageContentFilterDialect", "http://www.onvif.org/ver10/tev/messageContentFilter/ItemFilter"),
		E("tev:MessageContentSchemaLocation", "http://www.onvif.org/onvif/ver10/schema/onvif.xsd")), nil
}
