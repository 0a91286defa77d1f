package server

// This file counts, for whoever watches the shop's machine: GET /metrics, in the text
// format of Prometheus.

import (
	"strconv"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// metrics adds the counts to what the server answers.
func (s *api) metrics(r *gin.Engine) {
	took := prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "deepbay_request_seconds", Help: "How long requests took, by route, method and status.",
		Buckets: []float64{.001, .005, .02, .05, .1, .25, .5, 1, 2, 5, 10, 30}}, []string{"route", "method", "status"})
	gauge := func(name, help string, value func() float64) prometheus.Collector {
		return prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: name, Help: help}, value)
	}
	all := prometheus.NewRegistry()
	all.MustRegister(took, collectors.NewGoCollector(), collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
		gauge("deepbay_writes_waiting", "Changes that wait for their turn or are carried out.", func() float64 { return float64(s.waiting()) }),
		gauge("deepbay_records_damaged", "Damaged records that were met since the start.", func() float64 { return float64(len(s.Data.Damage())) }),
		gauge("deepbay_data_bytes", "Size of the data file with its log.", func() float64 { return float64(s.space().Bytes) }),
		gauge("deepbay_data_free_bytes", "Room left on the disk of the data file.", func() float64 { return float64(s.space().Free) }),
		gauge("deepbay_backup_age_seconds", "Age of the newest backup, -1 where there is none.", func() float64 {
			if s.Backup == nil || s.Backup(s.Now()).Last.IsZero() {
				return -1
			}
			return s.Now().Sub(s.Backup(s.Now()).Last).Seconds()
		}))
	r.Use(func(c *gin.Context) {
		start := time.Now()
		c.Next()
		route := c.FullPath()
		if route == "" {
			route = "files" // what is asked for by name is no end of names
		}
		took.WithLabelValues(route, c.Request.Method, strconv.Itoa(c.Writer.Status())).Observe(time.Since(start).Seconds())
	})
	r.GET("/metrics", gin.WrapH(promhttp.HandlerFor(all, promhttp.HandlerOpts{})))
}
