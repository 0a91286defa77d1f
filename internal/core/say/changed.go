package say

import (
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/rig"
)

// Differs words what a change made different in both setups of a job, from the job as it was
// to its view now.
func Differs(l Language, before *job.Job, now *job.View) []Changed {
	out := []Changed{}
	differ := func(in job.State, was, is rig.Rig, after *fit.Answer) {
		answer := fit.Resolve(&was)
		out = append(out, differs(in, In(l, &was), In(l, &is), &answer, after)...)
	}
	differ(job.InFound, before.FoundRig(), now.Job.FoundRig(), &now.Found)
	differ(job.InPlanned, before.PlannedRig(), now.Job.PlannedRig(), &now.Planned)
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
			if t.Was.Item != "" && (t.Now == nil || t.Now.Item != t.Was.Item) {
				c.Left = Name(was.name(t.Was.Item))
			}
		}
		out = append(out, c)
	}
	total := func(v *Voice, a *fit.Answer) string {
		m := v.Memory(&a.Memory)
		if m.Speed.IsZero() {
			return m.Total.s
		}
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
