package job

import "deepbay/internal/core/fit"

// Check resolves a job's plan.
func (j *Job) Check() fit.Answer {
	found, planned := j.FoundRig(), j.PlannedRig()
	before, now := fit.Resolve(&found), resolve(&planned)
	quiet(j, &before, &now)
	return now
}
