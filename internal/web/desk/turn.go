package desk

import (
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/plan"
)

// Turn is a way in which an address changes the plan to see what comes of it, beside the
// parts that it tries: another bike, a pump that is shut. A stage offers it; the desk folds
// it into every page, and the form on the bench sends it back to be kept.
type Turn struct {
	Key string // in the query of an address, and in the form on the bench
	// Read makes what the values of an address stand for, on a desk whose plan is as the
	// turns before this one leave it. A value that stands for nothing is left out, or is
	// [store.ErrNotFound].
	Read func(s *House, r *http.Request, d *Desk, values []string) ([]Turned, error)
}

// Turned is one value of a turn, and what it does.
type Turned struct {
	Value string
	Name  string // on the bench
	Said  string // in the history, once it is kept
	Act   string // on the button that keeps it, and whatever lies with it; "" for the usual
	On    func(*plan.Plan) *plan.Plan
}

// Laid is what an address lays on the bench: parts, and what else it turns about the plan.
type Laid struct {
	Plan   *plan.Plan // the desk's with all of it
	Tried  []plan.Choice
	turned []keyed
}

// keyed is what was turned, with the key that it stands under.
type keyed struct {
	key string
	Turned
}

// Laid is what the address of a request lays on the bench; it is read once.
func (d *Desk) Laid(r *http.Request) (Laid, error) {
	if d.laid == nil {
		l, err := d.read(r, r.URL.Query())
		if err != nil {
			return Laid{}, err
		}
		d.laid = &l
	}
	return *d.laid, nil
}

// read reads what an address or a form lays on the bench.
func (d *Desk) read(r *http.Request, query url.Values) (l Laid, err error) {
	l.Plan = d.Plan
	for _, st := range d.house.Stages {
		for _, t := range st.Turns {
			values := query[t.Key]
			if len(values) == 0 {
				continue
			}
			list, err := t.Read(d.house, r, d.With(l.Plan), values)
			if err != nil {
				return Laid{}, err
			}
			for _, turned := range list {
				l.turned, l.Plan = append(l.turned, keyed{t.Key, turned}), turned.On(l.Plan)
			}
		}
	}
	if l.Tried, err = d.With(l.Plan).choices(query["try"]); len(l.Tried) > 0 {
		l.Plan = l.Plan.With(l.Tried...)
	}
	return l, err
}

// TurnKeys are the keys of an address that lay something on the bench.
func (s *House) TurnKeys() []string {
	keys := []string{"try"}
	for _, st := range s.Stages {
		for _, t := range st.Turns {
			keys = append(keys, t.Key)
		}
	}
	return keys
}

// Any reports whether anything lies on the bench.
func (l Laid) Any() bool { return len(l.Tried) > 0 || len(l.turned) > 0 }

// On is another plan with what lies on the bench.
func (l Laid) On(p *plan.Plan) *plan.Plan {
	for _, t := range l.turned {
		p = t.On(p)
	}
	if len(l.Tried) > 0 {
		p = p.With(l.Tried...)
	}
	return p
}

// Values that are turned under a key.
func (l Laid) Values(key string) []string {
	var values []string
	for _, t := range l.turned {
		if t.key == key {
			values = append(values, t.Value)
		}
	}
	return values
}

// Query of what lies on the bench, with parts on top of it.
func (l Laid) Query(onTop ...plan.Choice) []string {
	return l.Instead(merged(l.Tried, onTop)...)
}

// Instead is the query of other parts than those on the bench; what else is turned stays.
func (l Laid) Instead(choices ...plan.Choice) []string {
	query := tries(choices...)
	for _, t := range l.turned {
		query = append(query, t.key, t.Value)
	}
	return query
}

// Turning is the query with one value more, or without it where it is there.
func (l Laid) Turning(key, value string) []string {
	query := l.Query()
	for i := 0; i < len(query); i += 2 {
		if query[i] == key && query[i+1] == value {
			return slices.Delete(query, i, i+2)
		}
	}
	return append(query, key, value)
}

// Title names what lies on the bench.
func (l Laid) Title() string {
	var names []string
	for _, t := range l.turned {
		names = append(names, t.Name)
	}
	if len(l.Tried) > 0 {
		names = append(names, Title(l.Tried))
	}
	return strings.Join(names, " with ")
}

// said tells in the history what of the bench is kept, on a desk as it was before.
func (l Laid) said(d *Desk) string {
	var list []string
	for _, t := range l.turned {
		list = append(list, t.Said)
	}
	without := d.With(Laid{turned: l.turned}.On(d.Plan))
	for _, c := range l.Tried {
		list = append(list, without.choiceSaid(c))
	}
	return strings.Join(list, "; ")
}

// act is what the button says that keeps what is turned, "" for the usual.
func (l Laid) act() string {
	for _, t := range l.turned {
		if t.Act != "" {
			return t.Act
		}
	}
	return ""
}
