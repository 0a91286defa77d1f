package measure

import (
	"math"
)

// Level is a level of sound in dB(A).
type Level float64

// Heard is a level without the room's.
type Heard struct {
	Level  float64 // dB(A); what was read where no background was taken
	Alone  bool    // the room's level was taken off
	Rough  bool    // less than 6 dB above the room: the number is a guide
	AtMost bool    // less than 3 dB above the room: it is at most this
}

// In dB: by how much a level must lie above the room's to be told from it at all, and plainly (practice
// of sound measurement; what is between is rough), and what a change must be to be noticed.
const (
	tellable   = 3
	plainly    = 6
	noticeable = 3
)

// Mean is the level of a sound that had these levels one after the other: the mean of their powers,
// not of their decibels.
func Mean(levels []float64) float64 {
	if len(levels) == 0 {
		return 0
	}
	return Sum(levels...) - 10*math.Log10(float64(len(levels)))
}

// Sum is the level of several sounds at once that know nothing of one another:
// 10 lg of the sum of 10^(L/10).
func Sum(levels ...float64) float64 {
	power := 0.0
	for _, l := range levels {
		power += math.Pow(10, l/10)
	}
	return 10 * math.Log10(power)
}

// Without is what is left of a level when the background is taken off:
// 10 lg(10^(Lt/10) - 10^(Lb/10)). Less than 3 dB above the background it cannot be told: then it is
// at most the total less 3 dB.
func Without(total, background float64) Heard {
	switch above := total - background; {
	case above < tellable:
		return Heard{Level: total - tellable, AtMost: true, Alone: true}
	default:
		return Heard{Level: 10 * math.Log10(math.Pow(10, total/10)-math.Pow(10, background/10)), Alone: true, Rough: above < plainly}
	}
}

// heard is what a series of a sound comes to.
func heard(s *Series) Heard {
	if !s.What.Sound() {
		return Heard{}
	}
	total := Mean(s.Runs)
	if len(s.Background) == 0 {
		return Heard{Level: total}
	}
	return Without(total, Mean(s.Background))
}

// sound compares two sounds. One that is at most so loud is better than another where even that is
// plainly less; otherwise it is too close to tell.
func (c *Change) sound() {
	was, is := c.HeardBefore, c.HeardAfter
	c.By = is.Level - was.Level
	switch less := -c.By; {
	case was.AtMost && is.AtMost:
		c.Verdict = Near
	case is.AtMost:
		c.Verdict = Near
		if less >= noticeable {
			c.Verdict = Better
		}
	case was.AtMost:
		c.Verdict = Near
		if -less >= noticeable {
			c.Verdict = Worse
		}
	case math.Abs(less) < noticeable:
		c.Verdict = Alike
	case less > 0:
		c.Verdict = Better
	default:
		c.Verdict = Worse
	}
}
