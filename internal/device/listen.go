package device

import (
	"context"
	"errors"
	"strings"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/internal/onvif"
)

// Heard is an event of a device in the plan's words.
type Heard struct {
	At    time.Time    `json:"at" doc:"By our clock: the device's, less how far that is ahead"`
	Kind  plan.Trigger `json:"kind" enum:"motion,alarm,lost" doc:"lost for a picture that is not there"`
	Token string       `json:"token" doc:"Of the video source, the analytics configuration or the input"`
	On    bool         `json:"on" doc:"Whether it begins; it ends otherwise"`
	Topic string       `json:"topic" doc:"As the device says"`
	First bool         `json:"first,omitempty" doc:"How things stand when listening begins"`
}

// Lost is that a picture is not there.
const Lost plan.Trigger = "lost"

const (
	portType     = "http://www.onvif.org/ver10/events/wsdl/"
	subscription = "http://docs.oasis-open.org/wsn/bw-2/SubscriptionManager/"
)

// Listen tells what the device notices until ctx ends, by a pull point; begun is told as soon as nothing is missed any more. It
// returns nil when ctx ends.
func (c *Client) Listen(ctx context.Context, begun func(), tell func(Heard)) error {
	path := c.services[onvif.Events]
	if path == "" {
		return &Error{Refused, "It does not tell of events: the service is not among its own."}
	}
	answer, err := c.callAt(ctx, path, onvif.E("tev:CreatePullPointSubscription", onvif.E("tev:InitialTerminationTime", "PT60S")),
		portType+"EventPortType/CreatePullPointSubscriptionRequest")
	if err != nil {
		return err
	}
	_, at, err := pathOf(onvif.Text(answer, "SubscriptionReference/Address"))
	if err != nil {
		return err
	}
	begun()
	defer func() {
		ending, cancel := context.WithTimeout(context.WithoutCancel(ctx), 2*time.Second)
		defer cancel()
		c.callAt(ending, at, onvif.E("wsnt:Unsubscribe"), subscription+"UnsubscribeRequest") // it ends by itself in a minute
	}()
	renewed, failed := time.Now(), 0
	for ctx.Err() == nil {
		answer, err := c.callAt(ctx, at, onvif.E("tev:PullMessages", onvif.E("tev:Timeout", "PT5S"), onvif.E("tev:MessageLimit", "100")),
			portType+"PullPointSubscription/PullMessagesRequest")
		switch {
		case ctx.Err() != nil:
			return nil
		case err != nil && broken(err) && failed < 3:
			failed++
			continue
		case err != nil:
			return err
		}
		failed = 0
		for _, e := range onvif.All(answer, "NotificationMessage") {
			if h, ok := c.heard(e); ok {
				tell(h)
			}
		}
		if time.Since(renewed) > 20*time.Second {
			renewed = time.Now()
			_, err := c.callAt(ctx, at, onvif.E("wsnt:Renew", onvif.E("wsnt:TerminationTime", "PT60S")), subscription+"RenewRequest")
			var refused *Error
			if err != nil && ctx.Err() == nil && (!errors.As(err, &refused) || refused.Trouble != Refused) && !broken(err) {
				return err
			}
		}
	}
	return nil
}

// heard is an event in the plan's words; ok is false for one that a plan knows nothing of.
func (c *Client) heard(e *onvif.Element) (h Heard, ok bool) {
	n, err := onvif.NoticeOf(e, c.zone)
	if err != nil {
		return h, false
	}
	h = Heard{At: n.At.Add(-c.clock).UTC(), Topic: n.Topic, First: n.Operation == "Initialized"}
	state := func(names ...string) (on, told bool) {
		for _, name := range names {
			if text, known := n.Data[name]; known {
				return onvif.Truth(text), true
			}
		}
		return false, false
	}
	source := func(names ...string) string {
		for _, name := range names {
			if text := n.Source[name]; text != "" {
				return text
			}
		}
		return ""
	}
	switch topic := n.Topic; {
	case strings.Contains(topic, "DigitalInput"):
		h.Kind, h.Token = plan.Alarm, source("InputToken", "Token")
		h.On, ok = state("LogicalState", "State")
	case strings.Contains(topic, "SignalLoss"):
		h.Kind, h.Token = Lost, source("VideoSource", "VideoSourceToken", "Source")
		h.On, ok = state("SignalLoss", "State")
	case strings.Contains(topic, "Motion"):
		h.Kind, h.Token = plan.Motion, source("VideoSourceConfigurationToken", "VideoSource", "VideoSourceToken", "Source")
		h.On, ok = state("IsMotion", "State", "Motion")
	}
	return h, ok
}
