package server

import (
	"net/http"
	"strconv"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"wakefield.example/internal/store"
)

// Meters count what the server does, in the text format of Prometheus.
type Meters struct {
	registry  *prometheus.Registry
	requests  *prometheus.HistogramVec
	Edits     *prometheus.CounterVec
	estimates prometheus.Histogram
	cached    prometheus.Gauge
	entries   prometheus.Gauge
}

func NewMeters(s *store.Store, h *Hub) *Meters {
	m := &Meters{
		registry: prometheus.NewRegistry(),
		requests: prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "wakefield_request_seconds",
			Help:    "Requests answered, by how long they took.",
			Buckets: []float64{0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10, 30}}, []string{"method", "route", "status"}),
		Edits: prometheus.NewCounterVec(prometheus.CounterOpts{Name: "wakefield_edits_total", Help: "Changes asked for, by what became of them."},
			[]string{"outcome"}),
		estimates: prometheus.NewHistogram(prometheus.HistogramOpts{Name: "wakefield_estimate_seconds",
			Help:    "Estimates of whole plans, by how long they took.",
			Buckets: []float64{0.001, 0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10}}),
		cached: prometheus.NewGauge(prometheus.GaugeOpts{Name: "wakefield_cache_bytes",
			Help: "About what the plans and estimates at hand take of memory."}),
		entries: prometheus.NewGauge(prometheus.GaugeOpts{Name: "wakefield_cache_sites", Help: "Sites at hand."}),
	}
	connections := func(name, help string, which func(open, used, most int) int) prometheus.Collector {
		return prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: name, Help: help}, func() float64 { return float64(which(s.Connections())) })
	}
	m.registry.MustRegister(m.requests, m.Edits, m.estimates, m.cached, m.entries,
		prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: "wakefield_streams", Help: "Pages that follow changes."},
			func() float64 { return float64(h.count()) }),
		prometheus.NewCounterFunc(prometheus.CounterOpts{Name: "wakefield_database_questions_total", Help: "How often the database was asked."},
			func() float64 { return float64(s.Questions()) }),
		connections("wakefield_database_connections", "Connections to the database.", func(open, _, _ int) int { return open }),
		connections("wakefield_database_connections_used", "Of these in use.", func(_, used, _ int) int { return used }),
		connections("wakefield_database_connections_most", "How many there may be.", func(_, _, most int) int { return most }),
		collectors.NewGoCollector(), collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}))
	return m
}

func (m *Meters) handler() http.Handler {
	return promhttp.HandlerFor(m.registry, promhttp.HandlerOpts{})
}

// measured counts requests by the operation they ask for.
func (m *Meters) measured(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		start := time.Now()
		ww := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
		defer func() {
			route := "page"
			if c := chi.RouteContext(r.Context()); c != nil && c.RoutePattern() != "" {
				route = c.RoutePattern()
			}
			m.requests.WithLabelValues(method(r.Method), route, strconv.Itoa(ww.Status())).Observe(time.Since(start).Seconds())
		}()
		next.ServeHTTP(ww, r)
	})
}

// method keeps the number of labels bounded, whatever is asked.
func method(name string) string {
	switch name {
	case http.MethodGet, http.MethodPost, http.MethodHead:
		return name
	}
	return "other"
}

// Kept is told what is at hand.
func (m *Meters) Kept(bytes, plans int) {
	m.cached.Set(float64(bytes))
	m.entries.Set(float64(plans))
}

// Estimated counts an estimate that began at a time.
func (m *Meters) Estimated(start time.Time) { m.estimates.Observe(time.Since(start).Seconds()) }
