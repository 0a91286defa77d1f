package job

// Renew is what Apply does about the opening when a plan has changed, for tests that change
// plans without it.
func Renew(old, now *Job) { renew(old, now) }
