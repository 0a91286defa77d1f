package job

import (
	"strings"
	"time"

	"deepbay/internal/core/fact"
)

// Date is a day of the calendar, as ISO 8601 writes it: "2026-11-30". "" is not said.
type Date string

// Valid reports a day that there is, or none said.
func (d Date) Valid() bool {
	_, err := time.Parse(time.DateOnly, string(d))
	return d == "" || err == nil
}

// schedule keeps where the machine stands and when it is due.
func (a *applier) schedule() fact.Fact {
	stands, due := strings.TrimSpace(a.change.Value), Date(strings.TrimSpace(a.change.Text))
	if !due.Valid() {
		return a.refuse("/text", fact.Of(NoSuchDay, string(due)))
	}
	a.job.Stands, a.job.Due = stands, due
	says := []fact.Fact{fact.Of(StandsNowhere)}
	if stands != "" {
		says[0] = fact.Of(StandsAt, fact.Typed(stands))
	}
	if due != "" {
		says = append(says, fact.Of(DueOn, fact.Typed(due)))
	}
	return fact.Of(Together, says)
}
