package plan

import (
	"math"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// Brief is who rides, where, and for how much.
type Brief struct {
	Start       string            `json:"start,omitempty" is:"date"` // date of departure, 2027-06-12
	Distance    unit.Length       `json:"distance,omitzero"`
	Terrain     []terrain.Stretch `json:"terrain,omitempty"`
	Cruise      unit.Speed        `json:"cruise,omitzero"`       // to be held on the fast ground
	CruiseRPM   unit.Rotation     `json:"cruise_rpm,omitzero"`   // the most the rider wants to hear there
	WalkingPace unit.Speed        `json:"walking_pace,omitzero"` // in first, clutch home
	Budget      money.Amount      `json:"budget,omitzero"`
	Unlimited   bool              `json:"no_budget,omitempty"` // the rider has said that there is no budget
	Style       tyre.Style        `json:"style,omitempty"`
	Bothers     Bother            `json:"bothers,omitempty"` // most, of the bike as it is

	Gap      unit.Length `json:"gap,omitzero"`      // the longest between pumps
	Reserve  unit.Ratio  `json:"reserve,omitzero"`  // of the usable fuel, not to be planned with
	Altitude unit.Length `json:"altitude,omitzero"` // the highest ground
	Headwind unit.Speed  `json:"headwind,omitzero"` // to be cruised into
	Climb    unit.Ratio  `json:"climb,omitzero"`    // the steepest, rise over run

	Day         unit.Duration `json:"day,omitzero"`          // in the saddle
	Night       unit.Ratio    `json:"night_share,omitzero"`  // of the riding, in the dark
	NightCruise unit.Speed    `json:"night_cruise,omitzero"` // to be held in the dark
	Reacts      unit.Duration `json:"reacts,omitzero"`       // until the brakes bite
	NightGrip   unit.Ratio    `json:"night_grip,omitzero"`   // of the ground's grip that the rider brakes with by night

	SeesBy  unit.Illuminance `json:"sees_by,omitzero"`  // light on what lies on the road
	Weather Weather          `json:"weather,omitempty"` // the worst to count on

	Spanner  Spanner      `json:"spanner,omitempty"`
	Practice Practice     `json:"practice,omitempty"` // with them, from 1
	HourRate money.Amount `json:"hour_rate,omitzero"` // of a workshop

	Skill guard.Skill   `json:"skill,omitempty"` // where it is loose
	Falls unit.Ratio    `json:"falls,omitzero"`  // that the rider counts on, over the trip
	Help  unit.Duration `json:"help,omitzero"`   // until parts or a truck come

	ClimbGround terrain.Kind `json:"climb_ground,omitempty"` // that the steepest climb is on

	Ships    string    `json:"ships,omitempty" is:"date"` // date on which a truck, trailer or ferry takes it
	ShipMost unit.Mass `json:"ship_most,omitzero"`        // that the bike may weigh then
	TieDown  string    `json:"tie_down,omitempty"`        // where its straps go

	Person                 // who rides, where no loadout says that it is somebody else
	ReachWish  unit.Length `json:"reach_wish,omitzero"`   // the most between sole and ground
	RoomWanted unit.Length `json:"room_wanted,omitzero"`  // under the engine, rider on
	SpringsFor stance.Use  `json:"springs_for,omitempty"` // "" is by the ground
}

// Mix is the terrain as shares; nobody has said when no share is known.
func (b *Brief) Mix() terrain.Mix { return terrain.MixOfStretches(b.Terrain) }

// Share of one kind of ground, missing when the brief does not name it.
func (b *Brief) Share(k terrain.Kind) unit.Ratio {
	for _, s := range b.Terrain {
		if s.Ground == k {
			return s.Share
		}
	}
	return unit.Ratio{}
}

// Bother is what a rider likes least about the bike as it is.
type Bother string

// The bothers, each a stage of the work.
const (
	BotherTyres   Bother = "tyres"
	BotherArmour  Bother = "armour"
	BotherContact Bother = "contact"
	BotherRange   Bother = "range"
	BotherLoad    Bother = "load"
	BotherGearing Bother = "gearing"
	BotherStance  Bother = "stance"
	BotherLight   Bother = "electrics"
)

// Bothers lists them, in a rider's words.
func Bothers() []entry.Option {
	return []entry.Option{
		entry.Opt(BotherRange, "How far a tank takes me"), entry.Opt(BotherContact, "Knees, back, hands, seat"),
		entry.Opt(BotherStance, "It wallows, or is too tall"), entry.Opt(BotherTyres, "Tyres and flats"),
		entry.Opt(BotherLoad, "Where the luggage goes"), entry.Opt(BotherArmour, "What breaks in a fall"),
		entry.Opt(BotherGearing, "Too fast in first, too busy on the road"), entry.Opt(BotherLight, "Light, charging, warm hands"),
	}
}

// Weather is the worst that a trip counts on.
type Weather string

// The weathers.
const (
	Warm Weather = "warm"
	Wet  Weather = "wet"
	Cold Weather = "cold"
)

// Weathers lists them.
func Weathers() []entry.Option {
	return []entry.Option{entry.Opt(Warm, "Warm and dry"), entry.Opt(Wet, "Days of rain"), entry.Opt(Cold, "Cold mornings, rain")}
}

// Skills lists how practised riders are where it is loose.
func Skills() []entry.Option {
	var list []entry.Option
	for _, s := range guard.Skills() {
		list = append(list, entry.Opt(s.Skill, s.Name))
	}
	return list
}

// steep is the order in which grounds are taken to hold the steepest climb, when
// nobody has said. Sand and mud are gone round.
var steep = []terrain.Kind{terrain.SingleTrack, terrain.RoughGravel, terrain.Track, terrain.SmoothGravel, terrain.Paved, terrain.Motorway}

// SteepGround is where the steepest climb is: as the brief says, or else the
// roughest ground of the trip.
func (b *Brief) SteepGround() terrain.Ground {
	kind := b.ClimbGround
	for _, k := range steep {
		if kind == "" && b.Share(k).Known() {
			kind = k
		}
	}
	ground, ok := terrain.Of(kind)
	if !ok {
		ground, _ = terrain.Of(terrain.Paved)
	}
	return ground
}

// Slower is the brief's cruise less so many km/h, in the unit that it was typed in;
// ok is false when it names none.
func (b *Brief) Slower(kmh float64) (cruise unit.Speed, ok bool) {
	if !b.Cruise.Known() {
		return cruise, false
	}
	_, symbol, _ := strings.Cut(b.Cruise.String(), " ")
	now := b.Cruise.In(symbol)
	less := now * kmh / b.Cruise.In("km/h")
	return cruise, cruise.Enter(strconv.FormatFloat(math.Round(now-less), 'f', 0, 64), symbol) == nil
}

// Sections lists the brief's numbers for forms and validation.
func (b *Brief) Sections() []entry.Section {
	return []entry.Section{
		{Name: "The trip", Fields: []entry.Field{
			entry.Ask("distance", "Trip distance", "km", 10, 100000, "Door to door, everything included.", &b.Distance),
			entry.Ask("cruise", "Cruise to hold", "km/h", 30, 200, "The speed the fast stretches ask for, hour after hour.", &b.Cruise),
			entry.Ask("cruise_rpm", "Cruise limit", "rpm", 1000, 15000, "The most you want the engine to turn there. Empty: the bike's own comfortable limit.", &b.CruiseRPM),
			entry.Ask("night_cruise", "Cruise in the dark", "km/h", 10, 200, "On the loosest of your ground. Empty: none is planned.", &b.NightCruise),
			entry.Ask("walking_pace", "Walking pace", "km/h", 2, 20, "The slowest first gear should go with the clutch home: a rock step, a queue, a mate on foot.", &b.WalkingPace),
			entry.Ask("headwind", "Headwind", "km/h", 0, 120, "That the cruise should still hold against. Empty: still air.", &b.Headwind),
			entry.Ask("climb", "Steepest climb", "%", 0, 100, "Rise over run, loaded, on the ground where it stands.", &b.Climb),
			entry.Ask("altitude", "Highest ground", "m", -400, 6000, "An engine loses about a tenth of its power per 1000 m.", &b.Altitude),
			entry.Ask("gap", "Longest between pumps", "km", 5, 2000, "The one gap that decides the tank.", &b.Gap),
			entry.Ask("reserve", "Reserve", "%", 0, 60, "Of the fuel, not to be planned with: 10–20 % is usual. Empty: 15 %.", &b.Reserve),
			entry.Ask("ship_most", "May weigh when shipped", "kg", 50, 600, "By the trailer's plate or the carrier's rule; the bike without rider and bags, a quarter of its fuel.", &b.ShipMost),
			entry.Ask("room_wanted", "Room under the engine", "mm", 40, 400, "With you on it. Empty: what the roughest of your ground asks for.", &b.RoomWanted),
		}},
		{Name: "The rider", Fields: append(b.Person.Fields(),
			entry.Ask("day", "Hours a day", "h", 0.5, 20, "In the saddle, on a usual day of the trip.", &b.Day),
			entry.Ask("reacts", "You react in", "s", 0.5, 5, "From seeing it to braking: 2.5 s is what roads are built for, awake and looking 1–1.5 s. Empty: 2.5 s.", &b.Reacts),
			entry.Ask("night_grip", "By night you brake with", "%", 20, 100, "Of the grip that the ground has. Empty: 70 %, and no more than 3.4 m/s², which roads are built for.", &b.NightGrip),
			entry.Ask("sees_by", "You see by", "lx", 0.5, 20, "On what lies on the road: 1 optimistic, 5 cautious or older eyes. Empty: 3 lx.", &b.SeesBy),
			entry.Ask("night_share", "In the dark", "%", 0, 100, "Of the riding. Empty: none is planned.", &b.Night),
			entry.Ask("falls", "Falls to count on", "", 0, 200, "Over the whole trip, slow ones too. Empty: by ground and skill.", &b.Falls),
			entry.Ask("help", "Help is away by", "h", 0, 500, "Until parts or a truck reach you at the worst place.", &b.Help),
			entry.Ask("reach_wish", "Heel off the ground by", "mm", 0, 200, "The most that you want at a stop: 0 flat feet, 60 the balls of both. Empty: 60.", &b.ReachWish),
		)},
	}
}

// Riding lists those of them that a range is ridden by: cruise and reserve.
func (b *Brief) Riding() []entry.Field {
	var list []entry.Field
	for _, f := range b.Fields() {
		if f.Key == "cruise" || f.Key == "reserve" {
			list = append(list, f)
		}
	}
	return list
}

// KeyOf is the key of one of the brief's numbers, by the number itself; "" for another.
func (b *Brief) KeyOf(q any) string {
	for _, f := range b.Fields() {
		if any(f.Entry) == q {
			return f.Key
		}
	}
	return ""
}

// Fields lists the numbers of all sections.
func (b *Brief) Fields() []entry.Field { return entry.FieldsOf(b.Sections()) }

func (b *Brief) validate(v *entry.Problems) {
	v.Date("brief.start", b.Start)
	v.Date("brief.ships", b.Ships)
	v.That(len(b.TieDown) <= entry.MaxName, "brief.tie_down", "is longer than %d bytes", entry.MaxName)
	v.Fields("brief", b.Fields())
	v.That(b.Style == "" || tyre.KnownStyle(b.Style), "brief.style", "%q is not gentle, steady or hard", b.Style)
	v.Pick("brief.weather", string(b.Weather), Weathers())
	v.Pick("brief.bothers", string(b.Bothers), Bothers())
	v.Pick("brief.spanner", string(b.Spanner), Spanners())
	v.That(b.Practice.Valid(), "brief.practice", "%d is outside 1–5", b.Practice)
	v.That(!b.HourRate.Known() || b.HourRate.Minor() >= 0, "brief.hour_rate", "is below zero")
	v.Pick("brief.skill", string(b.Skill), Skills())
	v.That(!b.Budget.Known() || b.Budget.Minor() >= 0, "brief.budget", "is below zero")
	v.That(!b.Budget.Known() || !b.Unlimited, "brief.no_budget", "stands beside a budget")
	_, ground := terrain.Of(b.ClimbGround)
	v.That(b.ClimbGround == "" || ground, "brief.climb_ground", "%q is not a kind of ground", b.ClimbGround)
	v.Pick("brief.springs_for", string(b.SpringsFor), SpringUses())
	terrain.Validate(v, "brief.terrain", b.Terrain)
}
