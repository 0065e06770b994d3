package onvif

import (
	"maps"
	"slices"
	"strings"
	"time"
)

// Notice is an event as a device tells it.
type Notice struct {
	Topic     string // with our prefix where it is one of ONVIF's, such as tns1:VideoSource/MotionAlarm
	At        time.Time
	Operation string // Initialized, Changed or Deleted; empty for what is no state
	Source    map[string]string
	Data      map[string]string
}

// Concrete is the dialect of topics.
const Concrete = "http://www.onvif.org/ver10/tev/topicExpression/ConcreteSet"

// Element writes it as wsnt:NotificationMessage.
func (n Notice) Element() *Element {
	m := E("tt:Message", Attr{"UtcTime", n.At.UTC().Format("2006-01-02T15:04:05.000Z")})
	if n.Operation != "" {
		m.CreateAttr("PropertyOperation", n.Operation)
	}
	for _, part := range []struct {
		name  string
		items map[string]string
	}{{"tt:Source", n.Source}, {"tt:Data", n.Data}} {
		e := E(part.name)
		for _, name := range slices.Sorted(maps.Keys(part.items)) {
			e.AddChild(Item(name, part.items[name]))
		}
		m.AddChild(e)
	}
	return E("wsnt:NotificationMessage", E("wsnt:Topic", Attr{"Dialect", Concrete}, n.Topic), E("wsnt:Message", m))
}

// NoticeOf reads what a device tells; zone is that of times that name none.
func NoticeOf(e *Element, zone *time.Location) (n Notice, err error) {
	topic := At(e, "Topic")
	n.Topic = Text(e, "Topic")
	if prefix, path, named := strings.Cut(n.Topic, ":"); named && topic != nil && namespaceOf(topic, prefix) == Namespaces["tns1"] {
		n.Topic = "tns1:" + path
	}
	m := At(e, "Message/Message")
	if m == nil {
		return n, nil
	}
	n.Operation = m.SelectAttrValue("PropertyOperation", "")
	n.Source, n.Data = Items(m.SelectElement("Source")), Items(m.SelectElement("Data"))
	n.At, err = Moment(m.SelectAttrValue("UtcTime", ""), zone)
	return n, err
}

// namespaceOf is what a prefix stands for where an element is.
func namespaceOf(e *Element, prefix string) string {
	for ; e != nil; e = e.Parent() {
		for _, a := range e.Attr {
			if a.Space == "xmlns" && a.Key == prefix {
				return a.Value
			}
		}
	}
	return ""
}
