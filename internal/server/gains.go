package server

// This file is what comes after detection: what was measured, and what drives can come to together.

import (
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/volume"
)

// gains is what was measured of a job before the work and after it, and what that tells.
func (s *api) gains(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, say.About(s.Language, &k.Job).Gains(&k.Job))
	return nil
}

// SeriesRead is what a file of measurements holds.
type SeriesRead struct {
	Series []measure.Series `json:"series"`
}

// readMeasured reads a file of measurements. Nothing is kept.
func (s *api) readMeasured(c *gin.Context) error {
	b, err := fileBody(c)
	if err != nil {
		return err
	}
	series, err := measure.Read(b)
	if err != nil {
		return s.Language.Err(err)
	}
	c.JSON(http.StatusOK, SeriesRead{series})
	return nil
}

// arrayChoices is what drives of a job can come to together: ?item=…&item=…, with perYear, hours
// and years where somebody knows better.
func (s *api) arrayChoices(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	v := say.About(s.Language, &k.Job)
	risk := volume.Usual
	for name, to := range map[string]*float64{"perYear": &risk.PerYear, "hours": &risk.Hours, "years": &risk.Years} {
		text := c.Query(name)
		if text == "" {
			continue
		}
		if *to, err = strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64); err != nil {
			return problem.List{{Pointer: "/" + name, Says: strconv.Quote(text) + " is not a number", Cure: "write it like 1.5"}}
		}
	}
	if at := risk.Fault(); at != "" {
		return problem.List{{Pointer: "/" + at, Says: "the risk cannot be so", Cure: "a chance of failure above 0 and below 1 a year, 0 to 8,760 hours, 1 to 30 years"}}
	}
	var items []rig.ItemID
	for _, id := range c.QueryArray("item") {
		if it := k.Job.Item(rig.ItemID(id)); it == nil || k.Job.Part(it.Part).Drive == nil {
			return v.Err(problem.List{{Pointer: "/item", Fact: fact.Of(job.NoMember, id)}})
		}
		items = append(items, rig.ItemID(id))
	}
	if len(items) > 32 {
		return problem.List{{Pointer: "/item", Says: "more than 32 drives", Cure: "leave some out"}}
	}
	planned := k.Job.PlannedRig()
	answer := fit.Resolve(&planned)
	c.JSON(http.StatusOK, v.ArrayChoices(volume.Offers(k.Job.Drives(items, &answer), risk), risk))
	return nil
}

// volumes is what is written on the blank drives of a job, ?system= being the file system of what is
// suggested.
func (s *api) volumes(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	fs := volume.FileSystem(c.DefaultQuery("system", string(volume.NTFS)))
	if !slices.Contains(fs.Values(), string(fs)) {
		return s.Language.Err(problem.List{{Pointer: "/system", Fact: fact.Of(volume.NoSuchSystem, fact.Typed(fs))}})
	}
	c.JSON(http.StatusOK, say.About(s.Language, &k.Job).Volumes(&k.Job, fs))
	return nil
}

// divide draws a layout of a blank drive, whatever is wrong with it. Nothing is kept.
func (s *api) divide(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	l, err := body[volume.Layout](c, "Layout")
	if err != nil {
		return err
	}
	v := say.About(s.Language, &k.Job)
	d, ok := v.Divide(&k.Job, l)
	if !ok {
		return v.Err(problem.List{{Pointer: "/item", Fact: fact.Of(job.WhichLayout)}})
	}
	c.JSON(http.StatusOK, d)
	return nil
}

// transfers is the data that comes over in a job.
func (s *api) transfers(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, say.About(s.Language, &k.Job).Transfers(&k.Job))
	return nil
}

// moves says what the machine says to a transfer, whatever is wrong with it. Nothing is kept.
func (s *api) moves(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	t, err := body[volume.Transfer](c, "Transfer")
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, say.About(s.Language, &k.Job).Moved(&k.Job, &t))
	return nil
}
