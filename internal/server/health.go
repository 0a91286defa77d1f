package server

// This file tells how the shop's record is: damage, room, backups, what waits.

import (
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/quantity"
	"deepbay/internal/store"
)

func (s *api) health(c *gin.Context) error {
	out := Health{Status: "ok", Version: s.Version, Waiting: s.waiting()}
	if space := s.space(); space.Bytes > 0 {
		out.Space = &Space{Bytes: space.Bytes, FreeBytes: space.Free, Low: space.Free < lowSpace, Says: s.Language.Says(spaceWords(space))}
	}
	if s.Backup != nil {
		out.Backup = s.Backup(s.Now())
		out.Backup.Says = s.Language.Says(backupWords(out.Backup, s.Now()))
	}
	for _, d := range s.Data.Damage() {
		out.Damaged = append(out.Damaged, Damage{What: d.What, ID: d.ID, Says: s.Language.Says(d.Error())})
	}
	if len(out.Damaged) > 0 || out.Space != nil && out.Space.Low || out.Backup != nil && out.Backup.Old {
		out.Status = "needs a look"
	}
	c.JSON(http.StatusOK, out)
	return nil
}

// waiting is how many changes are under way or wait for their turn.
func (s *api) waiting() int { return len(s.changing) }

// space measures the data file; nothing where it cannot be measured.
func (s *api) space() store.Space {
	out, err := s.Data.Space()
	if err != nil {
		s.Log.Warn("the data file cannot be measured", "error", err)
		return store.Space{}
	}
	return out
}

func spaceWords(space store.Space) string {
	free := "nothing is"
	if space.Free > 0 {
		free = quantity.Bytes(space.Free).Decimal() + " are"
	}
	return "the shop's data takes " + quantity.Bytes(space.Bytes).Decimal() + ", and " + free + " free on its disk"
}

// lowSpace is less room than a shop should go on with: a year's work of a busy one, and
// one backup of it.
const lowSpace = 500 << 20

func backupWords(b *Backup, now time.Time) string {
	says := "no backup of this shop was made yet"
	if !b.Last.IsZero() {
		says = "the newest backup of this shop is " + age(now.Sub(b.Last)) + " old"
	}
	if b.Fault != nil {
		says += "; the last try failed: " + b.Fault.Error()
	}
	return says
}

// age is a time as people say it.
func age(d time.Duration) string {
	n, unit := int(d.Minutes()), "minute"
	switch {
	case d >= 48*time.Hour:
		n, unit = int(d.Hours())/24, "day"
	case d >= 2*time.Hour:
		n, unit = int(d.Hours()), "hour"
	}
	return many(n, unit, unit+"s")
}
