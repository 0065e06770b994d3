// Package onvif is the language of recorders and cameras: the names of ONVIF's services, messages of SOAP 1.2 with their
// addressing and security headers, and what means what in them. Who asks and who answers, package device and package standin,
// write and read them here.
//
// Messages are trees of elements. What is written has the namespaces that the standards name, each declared where the
// message begins; what is read is found by namespace too, whatever prefix a device gives it.
package onvif

import (
	"strings"

	"github.com/beevik/etree"
)

// Element is an element of a message.
type Element = etree.Element

// Namespaces by the prefix that is written for them.
var Namespaces = map[string]string{
	"s":     "http://www.w3.org/2003/05/soap-envelope",
	"wsa":   "http://www.w3.org/2005/08/addressing",
	"wsa4":  "http://schemas.xmlsoap.org/ws/2004/08/addressing", // that of discovery
	"wsse":  "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd",
	"wsu":   "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-utility-1.0.xsd",
	"d":     "http://schemas.xmlsoap.org/ws/2005/04/discovery",
	"dn":    "http://www.onvif.org/ver10/network/wsdl",
	"tds":   "http://www.onvif.org/ver10/device/wsdl",
	"trt":   "http://www.onvif.org/ver10/media/wsdl",
	"tr2":   "http://www.onvif.org/ver20/media/wsdl",
	"tmd":   "http://www.onvif.org/ver10/deviceIO/wsdl",
	"tptz":  "http://www.onvif.org/ver20/ptz/wsdl",
	"tan":   "http://www.onvif.org/ver20/analytics/wsdl",
	"tev":   "http://www.onvif.org/ver10/events/wsdl",
	"trc":   "http://www.onvif.org/ver10/recording/wsdl",
	"tse":   "http://www.onvif.org/ver10/search/wsdl",
	"tsc":   "http://www.onvif.org/ver10/schedule/wsdl",
	"tt":    "http://www.onvif.org/ver10/schema",
	"ter":   "http://www.onvif.org/ver10/error",
	"tns1":  "http://www.onvif.org/ver10/topics",
	"wsnt":  "http://docs.oasis-open.org/wsn/b-2",
	"wstop": "http://docs.oasis-open.org/wsn/t-1",
}

// Service is a service by the namespace of its messages, as GetServices names it.
type Service string

// Services that are spoken with, by their prefix.
const (
	DeviceService    Service = "tds"
	Media            Service = "trt"
	Media2           Service = "tr2"
	DeviceIO         Service = "tmd"
	PTZ              Service = "tptz"
	Analytics        Service = "tan"
	Events           Service = "tev"
	RecordingControl Service = "trc"
	RecordingSearch  Service = "tse"
	Schedule         Service = "tsc"
)

// ServiceOf is the service whose messages are in a namespace; empty for one that is not spoken with.
func ServiceOf(namespace string) Service {
	for _, s := range []Service{DeviceService, Media, Media2, DeviceIO, PTZ, Analytics, Events, RecordingControl, RecordingSearch, Schedule} {
		if Namespaces[string(s)] == namespace {
			return s
		}
	}
	return ""
}

// Names are the services in words, in the order in which they are told.
var Names = []struct {
	Service
	Name string
}{
	{DeviceService, "device"}, {Media2, "media 2"}, {Media, "media 1"}, {DeviceIO, "inputs and outputs"}, {PTZ, "presets"},
	{Analytics, "detection"}, {Events, "events"}, {RecordingControl, "recording"}, {RecordingSearch, "footage"}, {Schedule, "schedules"},
}

// E makes an element: a name with its prefix, and what is in it: a string is text, an Attr an attribute, an element or a list of
// them is within; nil is nothing.
func E(name string, in ...any) *Element {
	e := etree.NewElement(name)
	for _, x := range in {
		switch x := x.(type) {
		case string:
			e.SetText(x)
		case Attr:
			e.CreateAttr(x.Name, x.Value)
		case *Element:
			if x != nil {
				e.AddChild(x)
			}
		case []*Element:
			for _, child := range x {
				e.AddChild(child)
			}
		case nil:
		default:
			panic("onvif: an element cannot hold that")
		}
	}
	return e
}

// Attr is an attribute.
type Attr struct{ Name, Value string }

// At finds the first element on a path of names without prefixes; nil where there is none.
func At(e *Element, path string) *Element {
	for name := range strings.SplitSeq(path, "/") {
		if e == nil {
			return nil
		}
		e = e.SelectElement(name)
	}
	return e
}

// All finds the elements on a path: every one of the last name, in the first of each name before it.
func All(e *Element, path string) []*Element {
	if k := strings.LastIndexByte(path, '/'); k >= 0 {
		e, path = At(e, path[:k]), path[k+1:]
	}
	if e == nil {
		return nil
	}
	return e.SelectElements(path)
}

// Text is the text on a path, without the space around it; empty where there is none.
func Text(e *Element, path string) string {
	if e = At(e, path); e == nil {
		return ""
	}
	return strings.TrimSpace(e.Text())
}

// Is tells whether an element is of a name, written with our prefix, whatever its own prefix is.
func Is(e *Element, name string) bool {
	prefix, local, _ := strings.Cut(name, ":")
	return e.Tag == local && e.NamespaceURI() == Namespaces[prefix]
}

// Items are the simple items below an element, as a source, data and parameters have them, by name.
func Items(e *Element) map[string]string {
	out := make(map[string]string)
	if e == nil {
		return out
	}
	for _, item := range e.SelectElements("SimpleItem") {
		out[item.SelectAttrValue("Name", "")] = item.SelectAttrValue("Value", "")
	}
	return out
}

// Item is a simple item.
func Item(name, value string) *Element {
	return E("tt:SimpleItem", Attr{"Name", name}, Attr{"Value", value})
}

// ElementItem is an item that holds an element.
func ElementItem(name string, in *Element) *Element {
	return E("tt:ElementItem", Attr{"Name", name}, in)
}
