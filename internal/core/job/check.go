package job

import "deepbay/internal/core/fit"

// Check resolves a job's plan.
func (j *Job) Check() fit.Answer {
	r := j.PlannedRig()
	return resolve(&r)
}
