package server

import (
	"net"
	"net/http"
	"slices"
	"strings"
)

// hostsAllowed refuses requests for a host that this server does not go by. A page of
// another site whose name was made to lead here could otherwise read all there is, as
// its browser takes both for one origin.
func hostsAllowed(hosts []string) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if name := hostname(r.Host); !loopback(name) && !slices.ContainsFunc(hosts, func(h string) bool { return strings.EqualFold(h, name) }) {
				writeProblem(w, r, http.StatusMisdirectedRequest, "This server is not known by the name "+name+
					". Whoever runs it can allow the name with --host.")
				return
			}
			next.ServeHTTP(w, r)
		})
	}
}

// hostname is a Host header without its port.
func hostname(host string) string {
	if name, _, err := net.SplitHostPort(host); err == nil {
		return name
	}
	return strings.TrimSuffix(strings.TrimPrefix(host, "["), "]")
}

// loopback tells whether a name always means this machine.
func loopback(name string) bool {
	ip := net.ParseIP(name)
	return strings.EqualFold(name, "localhost") || ip != nil && ip.IsLoopback()
}
