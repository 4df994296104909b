package facts

import (
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/parts"
)

// Ready is what is to be done until the bike leaves, and when that is done.
type Ready struct {
	Jobs    []Job
	Net     *calendar.Net // the same jobs, nil while there is nothing to do
	Order   []int         // of those that are done one after the other, as planned
	Table   calendar.Table
	Outlook calendar.Outlook
	Today   calendar.Day
	Leaves  calendar.Day // by which all has to be done
	Dated   bool         // whether somebody has said when that is
	Circle  []string     // names of jobs that would wait for one another; what the rider said of them is left out
	Usual   int          // durations and hours that nobody has said
}

// JobKind is what a job does.
type JobKind string

// What jobs do.
const (
	JobOrder   JobKind = "order" // it is on its way, or to be ordered
	JobFit     JobKind = "fit"
	JobShop    JobKind = "shop" // a workshop fits it
	JobQueue   JobKind = "queue"
	JobRight   JobKind = "right" // put right what the inspection found
	JobMake    JobKind = "make"
	JobTry     JobKind = "try"
	JobPaint   JobKind = "paint"
	JobSets    JobKind = "sets"
	JobMeasure JobKind = "measure"
	JobSet     JobKind = "set" // sag, lamp, fork height
	JobTest    JobKind = "test"
	JobChange  JobKind = "change"
	JobPack    JobKind = "pack"
	JobPapers  JobKind = "papers"
	JobUseUp   JobKind = "use-up"
	JobOwn     JobKind = "own"
	JobShake   JobKind = "shakedown"
)

// Job is one of them, beside what the calendar knows of it.
type Job struct {
	Key    string // of a line, a check, the rider's own job
	Kind   JobKind
	Name   string
	Line   int // of the plan, −1 for none
	Slot   parts.Slot
	Shop   string
	Usual  bool // nobody has said how long it takes
	Places []calendar.Place
}

// ID is the name by which a plan knows the job.
func (j *Job) ID() string { return string(j.Kind) + "/" + j.Key }

// Is reports whether an id is the job's.
func (j *Job) Is(id string) bool {
	key, ok := strings.CutPrefix(id, string(j.Kind))
	return ok && len(key) == len(j.Key)+1 && key[0] == '/' && key[1:] == j.Key
}

// Day is the day that a moment of the table falls on.
func (r *Ready) Day(t float64) calendar.Day {
	return r.Today + calendar.Day(floor(min(max(t, -farthest), farthest)))
}

// farthest is how many days from today anything is written that is later, or never.
const farthest = 36_500

// Morning is the first morning on which what ends at a moment is done.
func (r *Ready) Morning(t float64) calendar.Day {
	return r.Today - calendar.Day(floor(-min(max(t, -farthest), farthest)+1e-6))
}

func floor(t float64) int {
	i := int(t)
	if float64(i) > t {
		i--
	}
	return i
}

// Index of a job by its id, −1 for none.
func (r *Ready) Index(id string) int {
	for i := range r.Jobs {
		if r.Jobs[i].Is(id) {
			return i
		}
	}
	return -1
}
