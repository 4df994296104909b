package plan

import (
	"fmt"
	"strconv"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// Ready is what the rider says of time: hours of their own, days away, who sells and who fits,
// jobs beside those of the lines, what comes first, and the order of the work. All of it may be
// left out: what is usual stands in for it.
type Ready struct {
	Weekly unit.Duration `json:"hours_a_week,omitzero"` // of one's own, spread over the week as is usual
	Week   Week          `json:"week,omitzero"`         // by weekday, where that is said
	Away   []Span        `json:"away,omitempty"`
	Ride   unit.Length   `json:"rides_a_week,omitzero"` // until departure: old tyres are used up by it
	Margin unit.Duration `json:"shakedown,omitzero"`    // missing: a weekend and a week to correct

	Sellers []Seller  `json:"sellers,omitempty"`
	Shops   []Shop    `json:"workshops,omitempty"`
	Jobs    []OwnJob  `json:"jobs,omitempty"`
	Firsts  []Before  `json:"firsts,omitempty"`
	Done    []DoneJob `json:"done,omitempty"`
	Order   []string  `json:"order,omitempty"` // jobs in the order of the work, by id
}

// IsZero reports that nothing was said.
func (r Ready) IsZero() bool {
	return !r.Weekly.Known() && r.Week == Week{} && !r.Ride.Known() && !r.Margin.Known() &&
		len(r.Away)+len(r.Sellers)+len(r.Shops)+len(r.Jobs)+len(r.Firsts)+len(r.Done)+len(r.Order) == 0
}

// Week is hours of one's own by weekday.
type Week struct {
	Mon unit.Duration `json:"mon,omitzero"`
	Tue unit.Duration `json:"tue,omitzero"`
	Wed unit.Duration `json:"wed,omitzero"`
	Thu unit.Duration `json:"thu,omitzero"`
	Fri unit.Duration `json:"fri,omitzero"`
	Sat unit.Duration `json:"sat,omitzero"`
	Sun unit.Duration `json:"sun,omitzero"`
}

// days are its fields from Monday.
func (w *Week) days() [7]*unit.Duration {
	return [7]*unit.Duration{&w.Mon, &w.Tue, &w.Wed, &w.Thu, &w.Fri, &w.Sat, &w.Sun}
}

// Weekdays names them, from Monday.
var Weekdays = [7]string{"Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"}

// Fields lists its numbers.
func (w *Week) Fields() []entry.Field {
	var list []entry.Field
	for i, d := range w.days() {
		list = append(list, entry.Ask(strings.ToLower(Weekdays[i][:3]), Weekdays[i], "h", 0, 16, "", d))
	}
	return list
}

// UsualWeek is how the hours of a week that nobody has described lie: an evening, and the weekend [memory].
var UsualWeek = [7]float64{0, 0, 1, 0, 0, 3, 2}

// Hours of one's own by weekday from Monday, h; usual is set where nobody has said.
func (r *Ready) Hours() (week [7]float64, usual bool) {
	said := false
	for i, d := range r.Week.days() {
		if d.Known() {
			week[i], said = d.In("h"), true
		}
	}
	if said {
		return week, false
	}
	week = UsualWeek
	if r.Weekly.Known() {
		sum := 0.0
		for _, h := range UsualWeek {
			sum += h
		}
		for i := range week {
			week[i] *= r.Weekly.In("h") / sum
		}
	}
	return week, !r.Weekly.Known()
}

// UsualMargin is what a shakedown and what it brings to light take: a weekend and a week to
// correct [practice, the handbook's calendar], days.
const UsualMargin = 9

// MarginDays is what the shakedown takes.
func (r *Ready) MarginDays() float64 {
	if r.Margin.Known() {
		return r.Margin.In("d")
	}
	return UsualMargin
}

// Fields lists the numbers of its settings but for the week.
func (r *Ready) Fields() []entry.Field {
	return []entry.Field{
		entry.Ask("hours_a_week", "Your own hours a week", "h", 0, 100, "At the bike, tools in hand. Empty: 6, an evening and the weekend.", &r.Weekly),
		entry.Ask("shakedown", "Kept for the shakedown", "d", 0, 200, "A hard ride with the full load, and time to put right what it shows. Empty: a weekend and a week, 9 d.", &r.Margin),
		entry.Ask("rides_a_week", "You still ride", "km", 0, 5000, "A week, until you leave: old tyres are used up by it.", &r.Ride),
	}
}

// Span is days from one to another; To may be left out for one day.
type Span struct {
	From string `json:"from" is:"date"`
	To   string `json:"to,omitempty" is:"date"`
	Why  string `json:"why,omitempty"`
}

// Days are the span's, ok is false where its dates are none.
func (s Span) Days() (span calendar.Span, ok bool) {
	from, ok := calendar.ParseDay(s.From)
	to, has := calendar.ParseDay(s.To)
	if !has {
		to = from
	}
	return calendar.Span{From: from, To: to}, ok && to >= from
}

func validateSpans(v *entry.Problems, path string, list []Span) {
	v.Few(path, len(list), maxFacts)
	for i, s := range list {
		at := path + entry.At(i)
		_, ok := s.Days()
		v.That(ok, at, "%s to %s are no days one after the other, want e.g. 2027-04-02 to 2027-04-09", entry.Cut(s.From), entry.Cut(s.To))
		v.Date(at+".to", s.To)
		v.Short(at+".why", s.Why)
	}
}

// Spans are days of a list.
func Spans(list []Span) []calendar.Span {
	var days []calendar.Span
	for _, s := range list {
		if span, ok := s.Days(); ok {
			days = append(days, span)
		}
	}
	return days
}

// Lead is how long something takes to come or to be done, in days: likely, and how it may go.
type Lead struct {
	Likely unit.Duration `json:"likely,omitzero"`
	Low    unit.Duration `json:"low,omitzero"`
	High   unit.Duration `json:"high,omitzero"`
}

// Known reports whether its likely days are.
func (l Lead) Known() bool { return l.Likely.Known() }

// Spread is the lead in days, what is not said of it around its likely days as is usual.
func (l Lead) Spread(usual calendar.Supply) calendar.Spread {
	s := usual.Around(l.Likely.In("d"))
	if l.Low.Known() {
		s.Low = min(l.Low.In("d"), s.Likely)
	}
	if l.High.Known() {
		s.High = max(l.High.In("d"), s.Likely)
	}
	return s
}

// Fields lists its numbers, keys before a suffix.
func (l *Lead) Fields(of string) []entry.Field {
	return []entry.Field{
		entry.Ask("likely"+of, "Days, likely", "d", 0, 1000, "", &l.Likely),
		entry.Ask("low"+of, "at least", "d", 0, 1000, "", &l.Low),
		entry.Ask("high"+of, "at most", "d", 0, 1000, "", &l.High),
	}
}

func (l Lead) validate(v *entry.Problems, path string) {
	v.Fields(path, l.Fields(""))
	low, likely, high := l.Low.In("d"), l.Likely.In("d"), l.High.In("d")
	v.That(!(low > likely) && !(likely > high) && !(low > high), path, "at least, likely and at most are not in order")
}

// Seller is whom parts are ordered from.
type Seller struct {
	Name    string          `json:"name" is:"name"`
	From    calendar.Supply `json:"from,omitempty"`
	Lead    Lead            `json:"lead,omitzero"`
	Freight money.Amount    `json:"freight,omitzero"` // once, whatever is in the parcel
	Express unit.Duration   `json:"express,omitzero"` // days that an express parcel takes; missing: there is none
	Extra   money.Amount    `json:"express_costs,omitzero"`
	Closed  []Span          `json:"closed,omitempty"`
}

// Shop is a workshop, or a specialist.
type Shop struct {
	Name   string       `json:"name" is:"name"`
	Queue  Lead         `json:"queue,omitzero"`  // until it has time
	Takes  Lead         `json:"takes,omitzero"`  // once it has
	Parts  bool         `json:"parts,omitempty"` // what is sent there is a part: the bike stays
	Not    []parts.Slot `json:"not,omitempty"`   // what it does not take
	Closed []Span       `json:"closed,omitempty"`
	Costs  money.Amount `json:"costs,omitzero"`
}

// How a job is done.
const (
	JobWork  = "work"
	JobWait  = "wait"
	JobVisit = "workshop"
)

// JobKinds lists how a job that a rider adds is done.
func JobKinds() []entry.Option {
	return []entry.Option{
		{Value: JobWork, Name: "Your own hours"},
		{Value: JobWait, Name: "Passes by itself"},
		{Value: JobVisit, Name: "A workshop, the bike is away"},
	}
}

// OwnJob is one that the rider adds.
type OwnJob struct {
	ID    string           `json:"id" is:"id"`
	Name  string           `json:"name" is:"name"`
	Kind  string           `json:"kind,omitempty"` // "" is work
	Takes unit.Duration    `json:"takes,omitzero"`
	Low   unit.Duration    `json:"low,omitzero"`
	High  unit.Duration    `json:"high,omitzero"`
	Opens []calendar.Place `json:"opens,omitempty"`
	Shop  string           `json:"workshop,omitempty"`
	From  string           `json:"not_before,omitempty" is:"date"`
	Note  string           `json:"note,omitempty"`
}

// Before says that one job comes before another; cut, that it does not though it usually would.
type Before struct {
	Job  string `json:"job"`
	Then string `json:"then"`
	Cut  bool   `json:"cut,omitempty"`
}

// DoneJob is a job that is done, and on which day.
type DoneJob struct {
	Job string `json:"job"`
	On  string `json:"on" is:"date"`
}

// Limits on what is said of time.
const (
	maxSellers = 60
	maxJobs    = 200
	maxJobID   = 200 // bytes
)

func (r *Ready) validate(v *entry.Problems) {
	v.Fields("ready", r.Fields())
	v.Fields("ready.week", r.Week.Fields())
	validateSpans(v, "ready.away", r.Away)
	v.Few("ready.sellers", len(r.Sellers), maxSellers)
	names := map[string]bool{}
	for i, s := range r.Sellers {
		path := "ready.sellers" + entry.At(i)
		v.Name(path+".name", s.Name)
		v.That(!names[s.Name], path+".name", "%q stands there twice", entry.Cut(s.Name))
		names[s.Name] = true
		v.Pick(path+".from", string(s.From), parts.Supplies())
		s.Lead.validate(v, path+".lead")
		v.That(!s.Express.Known() || s.Express.Base() >= 0 && s.Express.In("d") <= 365, path+".express", "%s is outside 0–365 d", s.Express)
		for key, sum := range map[string]money.Amount{"freight": s.Freight, "express_costs": s.Extra} {
			v.That(!sum.Known() || sum.Minor() >= 0, path+"."+key, "is below zero")
		}
		validateSpans(v, path+".closed", s.Closed)
	}
	clear(names)
	v.Few("ready.workshops", len(r.Shops), maxSellers)
	for i, s := range r.Shops {
		path := "ready.workshops" + entry.At(i)
		v.Name(path+".name", s.Name)
		v.That(!names[s.Name], path+".name", "%q stands there twice", entry.Cut(s.Name))
		names[s.Name] = true
		s.Queue.validate(v, path+".queue")
		s.Takes.validate(v, path+".takes")
		v.Few(path+".not", len(s.Not), len(parts.Kinds()))
		for k, slot := range s.Not {
			_, ok := parts.KindOf(slot)
			v.That(ok, fmt.Sprintf("%s.not[%d]", path, k), "%q is no kind of part", entry.Cut(string(slot)))
		}
		v.That(!s.Costs.Known() || s.Costs.Minor() >= 0, path+".costs", "is below zero")
		validateSpans(v, path+".closed", s.Closed)
	}
	clear(names)
	v.Few("ready.jobs", len(r.Jobs), maxJobs)
	for i, j := range r.Jobs {
		path := "ready.jobs" + entry.At(i)
		v.ID(path+".id", j.ID, "a short id of a–z, 0–9 and -")
		v.That(!names[j.ID], path+".id", "%q stands there twice", j.ID)
		names[j.ID] = true
		v.Name(path+".name", j.Name)
		v.Pick(path+".kind", j.Kind, JobKinds())
		low, takes, high := j.Low.In("d"), j.Takes.In("d"), j.High.In("d")
		v.That(!(low > takes) && !(takes > high) && !(low > high), path+".takes", "at least, likely and at most are not in order")
		v.That(!j.Takes.Known() || j.Takes.Base() >= 0 && j.Takes.In("d") <= 1000, path+".takes", "%s is outside 0–1000 d", j.Takes)
		v.That(!j.Low.Known() || j.Low.Base() >= 0, path+".low", "is below zero")
		v.That(!j.High.Known() || j.High.In("d") <= 1000, path+".high", "%s is more than 1000 d", j.High)
		v.Few(path+".opens", len(j.Opens), len(calendar.Places()))
		for k, place := range j.Opens {
			_, at := calendar.PlaceOf(place)
			v.That(at >= 0, fmt.Sprintf("%s.opens[%d]", path, k), "%q is no place on the bike", entry.Cut(string(place)))
		}
		v.Short(path+".workshop", j.Shop)
		v.Date(path+".not_before", j.From)
		v.Note(path+".note", j.Note)
	}
	v.Few("ready.firsts", len(r.Firsts), 2*maxJobs)
	for i, f := range r.Firsts {
		path := "ready.firsts" + entry.At(i)
		v.That(isJobID(f.Job), path+".job", "is no job")
		v.That(isJobID(f.Then) && f.Then != f.Job, path+".then", "is no other job")
	}
	v.Few("ready.done", len(r.Done), 2*maxJobs)
	for i, d := range r.Done {
		path := "ready.done" + entry.At(i)
		v.That(isJobID(d.Job), path+".job", "is no job")
		v.That(d.On != "", path+".on", "is missing")
		v.Date(path+".on", d.On)
	}
	v.Few("ready.order", len(r.Order), maxLines)
	for i, id := range r.Order {
		v.That(isJobID(id), "ready.order"+entry.At(i), "is no job")
	}
}

// isJobID reports whether a text may be one; jobs come and go with the lines, so that one there
// is no more is left alone.
func isJobID(id string) bool { return id != "" && len(id) <= maxJobID }

// SellerOf finds a seller by name, nil for one of whom nothing is said.
func (r *Ready) SellerOf(name string) *Seller {
	for i := range r.Sellers {
		if r.Sellers[i].Name == name && name != "" {
			return &r.Sellers[i]
		}
	}
	return nil
}

// ShopOf finds a workshop by name, nil for one of which nothing is said.
func (r *Ready) ShopOf(name string) *Shop {
	for i := range r.Shops {
		if r.Shops[i].Name == name && name != "" {
			return &r.Shops[i]
		}
	}
	return nil
}

// DoneOn is the day on which a job was done, "" for one that is not.
func (r *Ready) DoneOn(job string) string {
	for _, d := range r.Done {
		if d.Job == job {
			return d.On
		}
	}
	return ""
}

// Leaves is the last day by which all has to be ready: that on which the bike is taken away, or
// else the start; "" where the brief says neither.
func (b *Brief) Leaves() string {
	if b.Ships != "" && (b.Start == "" || b.Ships < b.Start) {
		return b.Ships
	}
	return b.Start
}

// LineKeys name the lines: a part by slot, loadout and id, another sum by its name; of several
// that have those in common the later ones by a number behind them.
func (p *Plan) LineKeys() []string {
	keys, seen := make([]string, len(p.Lines)), make(map[string]int, len(p.Lines))
	for i := range p.Lines {
		l := &p.Lines[i]
		key := "sum." + l.Name
		if l.Part != nil {
			key = string(l.Part.Slot) + "." + l.Loadout + "." + l.Part.ID
		}
		if seen[key]++; seen[key] > 1 {
			key += "~" + strconv.Itoa(seen[key])
		}
		keys[i] = key
	}
	return keys
}

// LineAt finds a line by its key, −1 for none.
func (p *Plan) LineAt(key string) int {
	for i, k := range p.LineKeys() {
		if k == key {
			return i
		}
	}
	return -1
}

// Altered is the plan with one of its lines changed.
func (p *Plan) Altered(at int, change func(*Line)) *Plan {
	changed := *p
	changed.Lines = append([]Line(nil), p.Lines...)
	change(&changed.Lines[at])
	return &changed
}

// Days is a lead of so many days.
func Days(s calendar.Spread) Lead {
	day := func(v float64) unit.Duration {
		var d unit.Duration
		if err := d.Enter(strconv.FormatFloat(v, 'f', -1, 64), "d"); err != nil {
			panic(err) // a number is one
		}
		return d
	}
	return Lead{Likely: day(s.Likely), Low: day(s.Low), High: day(s.High)}
}
