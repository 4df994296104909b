package load

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/pack"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/study/loading"
	"valiantmule/internal/format"
	"valiantmule/internal/format/packcsv"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// packingForm is the list of things of the loadout on view.
var packingForm = desk.StageForm{
	Stage: "packing", Title: "The list as typed", Save: "Save the list", Read: readPacking,
	View: func(r *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		v := packing(d, typed, errs)
		if r.URL.Query().Get("propose") != "" && v.Has {
			v.propose(d)
		}
		return v, nil
	},
}

type packingView struct {
	Has      bool
	NoBags   bool // on the bike in this loadout
	Loadout  string
	Unit     string
	Litre    string
	Bags     []bagColumn
	Packed   int
	Of       int
	Percent  int
	Rows     []packRow
	Tick     string
	Start    string
	Propose  string // where a proposal is looked at
	Take     string // where it is taken
	Moves    []packMove
	Left     []packLeft // what does not go in
	Proposed string     // what a proposal says
	CanTake  bool
	proposal loading.Repacking
	desk.CSVView
	desk.FormState
}

// bagColumn is one bag, or what is beside all bags, with what is in it.
type bagColumn struct {
	Name, Kg, Litres string
	Asks             desk.LinkView // what of it nobody has said
	Fill             float64       // 0–100 of the tighter limit
	State            desk.StateView
	Things           []packThing
}

// packThing is a thing to be ticked.
type packThing struct {
	Index            int
	Name, Mass, Note string
	Packed           bool
}

// packRow is one thing of the form.
type packRow struct {
	Index               int
	Name, Mass, Volume  string
	Where, Sides, Whens []desk.OptionView
	Daily, Out, New     bool
	Error               string
}

// packMove is one thing that a proposal moves, and why.
type packMove struct{ Name, From, To, Why string }

// packLeft is one thing that does not go in: the bag that comes nearest, and what that lacks.
type packLeft struct{ Name, Bag, Short string }

var packingList = &desk.List{Name: "Things", Columns: []string{"item", "mass", "volume", "where", "side", "when", "daily"}, Out: "out_item"}

func (v packingView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, r := range v.Rows {
		fields = append(fields, packingList.Fields(r.Index, r.Name, r.Mass, r.Volume, desk.Selected("", "", r.Where).Value, desk.Selected("", "", r.Sides).Value, desk.Selected("", "", r.Whens).Value, desk.Checked("", "", r.Daily).Value)...)
	}
	return fields
}

func (v packingView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func packing(d *desk.Desk, form url.Values, errs desk.FormErrors) packingView {
	loadout, _ := d.Plan.Loadout(d.Loadout)
	v := packingView{Has: d.Plan.Bike != nil, Loadout: loadout.Name, Unit: d.Units.Of("kg"), Litre: d.Units.Of("L"), Tick: d.Href("packing/tick"), Start: d.Href("packing/start"),
		Propose: d.Href("packing", "propose", "on"), Take: d.Href("packing/propose"), CSVView: desk.CSVView{File: d.Href("packing.csv"), Import: d.Href("packing/import")}, FormState: desk.FormState{Error: errs["form"], Try: d.Href("packing/try"), Save: d.Href("packing")}}
	if !v.Has {
		return v
	}
	v.NoBags = len(d.Report.Facts.Bags.On) == 0
	built := d.Plan.Build(d.Loadout)
	for i := range desk.RowsOf(form, "item", len(loadout.Loads)) {
		stored := plan.Load{Place: load.Tail}
		if i < len(loadout.Loads) {
			stored = loadout.Loads[i]
		}
		daily := stored.Daily
		if form != nil {
			daily = form.Has(desk.RowKey("daily", i))
		}
		v.Rows = append(v.Rows, packRow{
			Index: i, New: i >= len(loadout.Loads), Out: form.Has(desk.RowKey("out_item", i)), Error: errs[desk.RowKey("item", i)], Daily: daily,
			Name: desk.Typed(form, desk.RowKey("item", i), stored.Name), Mass: desk.Typed(form, desk.RowKey("mass", i), d.Units.Shown(stored.Mass.String())), Volume: desk.Typed(form, desk.RowKey("volume", i), d.Units.Shown(stored.Volume.String())),
			Where: desk.OptionsOf(wheres(built), desk.Typed(form, desk.RowKey("where", i), whereOf(stored, built)), ""),
			Sides: desk.OptionsOf(plan.Sides(), desk.Typed(form, desk.RowKey("side", i), string(stored.Side)), ""),
			Whens: desk.OptionsOf(plan.Whens(), desk.Typed(form, desk.RowKey("when", i), string(stored.When)), ""),
		})
	}
	v.columns(d, loadout, built)
	return v
}

// massOf a thing in the rider's units, "" where nobody has weighed it.
func massOf(d *desk.Desk, l plan.Load) string {
	if !l.Mass.Known() {
		return ""
	}
	return d.Units.Plain(l.Mass.In("kg"), "kg")
}

// columns sorts the things by bag, those beside all bags last.
func (v *packingView) columns(d *desk.Desk, loadout *plan.Loadout, built *plan.Built) {
	at := map[string]int{}
	for _, b := range d.Report.Facts.Bags.On {
		c := bagColumn{Name: b.Part.Name, State: desk.StateOf("ok")}
		if share := b.Share(); !math.IsNaN(share) { // of one that nobody has measured nobody knows
			c.Fill = min(100, 100*share)
		}
		c.Kg = d.Kg(b.Kg)
		if !math.IsNaN(b.LimitKg) {
			c.Kg += " of " + d.Units.Quantity(b.LimitKg, "kg")
		}
		c.Litres = d.Units.Quantity(b.Litres, "L")
		if math.IsNaN(b.LimitL) {
			c.Asks = desk.LinkView{Name: "what it holds", Href: d.Typed(study.PartAt(b.Part, parts.Litres.Key))}
		} else {
			c.Litres += " of " + d.Units.Quantity(b.LimitL, "L")
		}
		if b.Share() > 1 {
			c.State = desk.StateOf("over")
		}
		at["bag:"+string(b.Slot)] = len(v.Bags)
		v.Bags = append(v.Bags, c)
	}
	beside := bagColumn{Name: "Beside the bags", State: desk.StateOf("ok")}
	for i, l := range loadout.Loads {
		thing := packThing{Index: i, Name: l.Name, Mass: massOf(d, l), Packed: l.Packed, Note: string(l.When)}
		if l.Side != plan.Middle {
			thing.Note = strings.TrimPrefix(thing.Note+", "+string(l.Side), ", ")
		}
		v.Of++
		if l.Packed {
			v.Packed++
		}
		if k, ok := at[whereOf(l, built)]; ok {
			v.Bags[k].Things = append(v.Bags[k].Things, thing)
			continue
		}
		thing.Note = strings.TrimSuffix(entry.NameOf(wheres(built), whereOf(l, built))+", "+thing.Note, ", ")
		beside.Things = append(beside.Things, thing)
	}
	if len(beside.Things) > 0 {
		v.Bags = append(v.Bags, beside)
	}
	if v.Of > 0 {
		v.Percent = 100 * v.Packed / v.Of
	}
}

// readPacking reads the whole list; what a row does not show stays as it was.
func readPacking(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed, loadout := d.Plan.OwnLoads(d.Loadout)
	if d.Plan.Bike == nil {
		errs["form"] = "Choose a bike first."
		return changed, nil, errs
	}
	was := loadout.Loads
	built := d.Plan.Build(d.Loadout)
	loadout.Loads = nil
	for i := 0; form.Has(desk.RowKey("item", i)); i++ {
		text := func(key string) string { return strings.TrimSpace(form.Get(desk.RowKey(key, i))) }
		l := plan.Load{Place: load.Tail}
		if i < len(was) {
			l = was[i]
		}
		l.Name, l.Side, l.When, l.Daily = text("item"), plan.Side(text("side")), plan.When(text("when")), form.Has(desk.RowKey("daily", i))
		if (l.Name == "" && text("mass") == "") || form.Has(desk.RowKey("out_item", i)) {
			continue
		}
		err := d.Units.Enter(&l.Mass, text("mass"), "kg")
		if err == nil {
			err = d.Units.Enter(&l.Volume, text("volume"), "L")
		}
		if err == nil {
			err = l.Check()
		}
		if where := text("where"); err == nil && where != "" && where != whereOf(l, built) {
			err = moveTo(&l, where, built)
		}
		if err == nil && l.Name == "" {
			err = fmt.Errorf("say what it is")
		}
		if err != nil {
			errs[desk.RowKey("item", i)] = err.Error()
		}
		loadout.Loads = append(loadout.Loads, l)
	}
	if len(errs) == 0 {
		desk.Problems(changed, "loadouts", errs)
	}
	var summary []string
	if before, after := thingsText(was), thingsText(loadout.Loads); before != after {
		summary = append(summary, "Packing, "+d.Loadout+": "+after)
	}
	return changed, summary, errs
}

func thingsText(list []plan.Load) string {
	words := make([]string, len(list))
	for i, l := range list {
		words[i] = strings.Join(strings.Fields(fmt.Sprintf("%s %s %s %s %s %s %s %v", l.Name, l.Mass, l.Volume, l.Bag, l.Place, l.Side, l.When, l.Daily)), " ")
	}
	return strings.Join(words, ", ")
}

// tick says that a thing is in, or that it is not: on the plan's head, once for the
// id that the device made.
func tick(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	at, err := strconv.Atoi(r.PostFormValue("at"))
	if err != nil {
		return store.ErrNotFound
	}
	name, packed := r.PostFormValue("name"), r.PostFormValue("packed") == "yes"
	gone := false
	id, err := s.Amend(r, d, func(head *desk.Desk) (*plan.Plan, string) {
		changed, loadout := head.Plan.OwnLoads(d.Loadout)
		if gone = at < 0 || at >= len(loadout.Loads) || loadout.Loads[at].Name != name; gone {
			return head.Plan, ""
		}
		if loadout.Loads[at].Packed == packed {
			return head.Plan, ""
		}
		loadout.Loads[at].Packed = packed
		if packed {
			return changed, "Packed: " + name
		}
		return changed, "Taken out again: " + name
	})
	if err != nil {
		return err
	}
	if gone {
		return store.ErrStale
	}
	return desk.SeeOther(w, r, d.Href("packing", "kept", id)+"#thing-"+strconv.Itoa(at))
}

// startPacking puts a first list for the brief's trip on the loadout's; what is
// there by name stays as it is.
func startPacking(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	changed, loadout := d.Plan.OwnLoads(d.Loadout)
	have := map[string]bool{}
	for _, l := range loadout.Loads {
		have[strings.ToLower(l.Name)] = true
	}
	added := 0
	for _, t := range pack.Starter(trip(d)) {
		if have[strings.ToLower(t.Name)] {
			continue
		}
		l := plan.Load{Name: t.Name, Place: load.Tail, Daily: t.Daily, When: plan.When(t.For)}
		_ = l.Mass.Enter(strconv.FormatFloat(t.MassKg, 'f', -1, 64), "kg") // plain numbers
		_ = l.Volume.Enter(strconv.FormatFloat(t.Litres, 'f', -1, 64), "L")
		loadout.Loads = append(loadout.Loads, l)
		added++
	}
	if added > 0 {
		// A whole list goes into the bags that there are. What joins a rider's own lies behind the
		// seat until a proposal is taken: nothing of theirs moves unasked.
		if len(have) == 0 {
			report, err := d.On.Evaluate(changed)
			if err != nil {
				return err
			}
			if r := loading.Repack(report.Facts); r.Packing.OK {
				changed = r.Plan
			}
		}
		if err := s.Save(r, d, r.PostFormValue("base"), changed, fmt.Sprintf("Packing, %s: %d things of a first list", loadout.Name, added)); err != nil {
			return err
		}
	}
	return desk.SeeOther(w, r, d.Href("packing"))
}

// trip is what a first list is made for: the days of the loadout, or else those that
// the brief's hours come to.
func trip(d *desk.Desk) pack.Trip {
	b := &d.Plan.Brief
	loadout, _ := d.Plan.Loadout(d.Loadout)
	t := pack.Trip{Days: max(1, loadout.Days), Cold: b.Weather == plan.Cold, Wet: b.Weather == plan.Cold || b.Weather == plan.Wet, Remote: b.Help.In("h") > 12}
	if hours, day := b.Mix().Hours(b.Distance.In("km")), b.Day.In("h"); hours > 0 && day > 0 && loadout.Days == 0 {
		t.Days = int(math.Ceil(hours / day))
	}
	return t
}

// lying is where a thing is, with its side.
func lying(l plan.Load, built *plan.Built) string {
	where := entry.NameOf(wheres(built), whereOf(l, built))
	if l.Side == plan.Middle {
		return where
	}
	return where + ", " + string(l.Side)
}

// propose shows the proposal.
func (v *packingView) propose(d *desk.Desk) {
	v.proposal = loading.Repack(d.Report.Facts)
	packing, built := v.proposal.Packing, d.Report.Facts.Built
	for _, m := range v.proposal.Moves {
		v.Moves = append(v.Moves, packMove{m.To.Name, lying(m.From, built), lying(m.To, built), m.Why})
	}
	for _, out := range v.proposal.Out {
		v.Left = append(v.Left, packLeft{out.Load.Name, out.Bag.Name, shortBy(d, out)})
	}
	best := "Low, near, even, daily things in reach, and no more packed anew than that is worth: there is no better way by those."
	if packing.Gap > 0 {
		best = fmt.Sprintf("Low, near, even, daily things in reach. So many things are not searched to the end: at most %.0f %% could still be saved.", 100*packing.Gap/packing.Cost)
	}
	v.CanTake = len(v.Moves) > 0
	switch {
	case len(d.Report.Facts.Bags.On) == 0:
		v.Proposed = "There is no bag on the bike in this loadout: fit one under Load first."
	case len(v.Left) > 0 && v.CanTake:
		v.Proposed = fmt.Sprintf("Packed is what goes in, as much of it as can; %d %s left out. Leave something at home, share it, strap it on top, or fit another bag.", len(v.Left), desk.Plural(len(v.Left), "thing"))
	case len(v.Left) > 0:
		v.Proposed = fmt.Sprintf("What is in bags is packed as well as it can be; %d %s left out. Leave something at home, share it, or fit another bag.", len(v.Left), desk.Plural(len(v.Left), "thing"))
	case !v.CanTake:
		v.Proposed = "It is packed as well as it can be, by height, reach and balance: nothing gains what packing it anew costs."
	default:
		v.Proposed = best
	}
}

// shortBy is what the bag that comes nearest lacks for a thing.
func shortBy(d *desk.Desk, out loading.LeftOut) string {
	var list []string
	if out.Kg > 0 {
		list = append(list, d.Kg(max(out.Kg, 0.1)))
	}
	if out.Litres > 0 {
		list = append(list, d.Units.Quantity(max(out.Litres, 0.1), "L"))
	}
	return strings.Join(list, " and ")
}

// takeProposal packs it so.
func takeProposal(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	if p := loading.Repack(d.Report.Facts); len(p.Moves) > 0 {
		if err := s.Save(r, d, r.PostFormValue("base"), p.Plan, fmt.Sprintf("Packed anew, %s: %d things moved", d.Loadout, len(p.Moves))); err != nil {
			return err
		}
	}
	return desk.SeeOther(w, r, d.Href("packing"))
}

// packingFile is the list of the loadout on view.
func packingFile(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	loadout, _ := d.Plan.Loadout(d.Loadout)
	desk.Attach(w, "text/csv; charset=utf-8", format.FileName(d.Plan.Name+" "+loadout.Name, ".packing.csv"))
	return packcsv.Write(w, loadout.Loads)
}

// readList reads a packing list: a table, or lines as one writes them. Bags are called as they
// are called on the bike.
func readList(d *desk.Desk, text string) ([]packcsv.Row, error) {
	bags := packcsv.Bags{}
	for _, b := range d.Report.Facts.Bags.On {
		bags[b.Part.Name] = b.Slot
	}
	if packcsv.IsTable([]byte(text)) {
		return packcsv.Read([]byte(text), bags)
	}
	return packcsv.Lines(text, bags, d.Units.Enter)
}

// importPacking looks a list through. Nothing is kept until the rider takes the good
// rows; they are added, and take the place of what has the same name.
func importPacking(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	view := packing(d, nil, nil)
	if view.CSV, err = desk.SentFile(r); err != nil {
		return err
	}
	rows, err := readList(d, view.CSV)
	if err != nil {
		view.CSVError = "Nothing was taken: " + err.Error() + "."
		return s.ShowPage(w, r, http.StatusUnprocessableEntity, d, "packing", nil, view)
	}
	changed, loadout := d.Plan.OwnLoads(d.Loadout)
	for _, row := range rows {
		shown := desk.CSVRow{Line: row.Line, Text: row.Text, Says: "new"}
		at := slices.IndexFunc(loadout.Loads, func(l plan.Load) bool { return strings.EqualFold(l.Name, row.Load.Name) })
		switch {
		case row.Err != nil:
			shown.Bad, shown.Says = true, row.Err.Error()
		case at >= 0:
			shown.Says = "in place of the one that is there"
			loadout.Loads[at] = row.Load
			view.Good++
		default:
			loadout.Loads = append(loadout.Loads, row.Load)
			view.Good++
		}
		view.CSVRows = append(view.CSVRows, shown)
	}
	if r.PostFormValue("take") == "" || view.Good == 0 {
		return s.ShowPage(w, r, http.StatusOK, d, "packing", nil, view)
	}
	if problems := changed.Validate(); len(problems) > 0 {
		view.CSVError = "Nothing was taken: " + problems[0].Error() + "."
		return s.ShowPage(w, r, http.StatusUnprocessableEntity, d, "packing", nil, view)
	}
	if err := s.Save(r, d, d.Revision, changed, fmt.Sprintf("Packing, %s: %d things from a file", d.Loadout, view.Good)); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("packing"))
}

// packingPage shows the list; with a proposal on view, what it would do lies on the
// bench.
func packingPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	body, err := packingForm.View(r, d, nil, nil)
	if err != nil {
		return err
	}
	var bench *desk.BenchView
	if v := body.(packingView); v.CanTake {
		if bench, err = d.Bench(eval.Alternative{Label: "Packed anew", Plan: v.proposal.Plan}, "packing", nil); err != nil {
			return err
		}
		bench.SaveAs = "Pack it so"
	}
	return s.ShowPage(w, r, http.StatusOK, d, "packing", bench, body)
}
