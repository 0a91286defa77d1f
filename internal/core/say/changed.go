package say

import (
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
)

// Differs words what a change made different in both setups of a job.
func Differs(l Language, before, after *job.Job) []Changed {
	out := []Changed{}
	for _, in := range []job.State{job.InFound, job.InPlanned} {
		was, now := before.PlannedRig(), after.PlannedRig()
		if in == job.InFound {
			was, now = before.FoundRig(), after.FoundRig()
		}
		a, b := fit.Resolve(&was), fit.Resolve(&now)
		out = append(out, differs(in, In(l, &was), In(l, &now), &a, &b)...)
	}
	return out
}

func differs(in job.State, was, now *Voice, before, after *fit.Answer) []Changed {
	var out []Changed
	for _, t := range fit.Turns(before, after) {
		c := Changed{In: in, Socket: t.Socket, Turn: t.Turn, Now: now.text("gone"), Was: now.text("not there")}
		if t.Now != nil {
			c.Now = now.text(now.lying(after, t.Now))
		}
		if t.Was != nil {
			c.Was = now.text(was.lying(before, t.Was))
		}
		out = append(out, c)
	}
	total := func(v *Voice, a *fit.Answer) string {
		m := v.Memory(&a.Memory)
		return "memory " + m.Total.s + ", " + m.Speed.s
	}
	if b, a := total(was, before), total(now, after); b != a {
		turn := fit.NowMore
		if after.Memory.Total.High < before.Memory.Total.High || after.Memory.Total.High == before.Memory.Total.High && after.Memory.MTps.High < before.Memory.MTps.High {
			turn = fit.NowLess
		}
		out = append(out, Changed{In: in, Turn: turn, Now: now.text(a), Was: now.text(b)})
	}
	return out
}

// lying is what lies in a socket and what that comes to.
func (v *Voice) lying(a *fit.Answer, s *fit.SocketState) string {
	says := v.socket(a, s).Says.s
	if s.Item == "" {
		return says
	}
	return v.name(s.Item) + ", " + says
}
