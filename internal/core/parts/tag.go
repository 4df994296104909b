package parts

import (
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
)

// Tag is what one thing provides and another needs. Most are of a table. What belongs
// to a kind of bikes says so after a colon, "frame: Holt 650", in the words of whoever
// made the part or has the bike.

// TagInfo is a tag of the table: how it is called as something that is needed, and
// the slots whose parts may provide it.
type TagInfo struct {
	Tag, Words string
	By         []Slot // nobody: it is of the bike
	Usual      []Slot // whose parts do so by what they are, until somebody says otherwise
}

var tags = [...]TagInfo{
	{"bar-22", "a bar of 22.2 mm", []Slot{Handlebar}, nil},
	{"bar-28", "a bar of 28.6 mm", []Slot{Handlebar}, nil},
	{"clamp-22", "clamps for a 22.2 mm bar", []Slot{Risers}, nil},
	{"clamp-28", "clamps for a 28.6 mm bar", []Slot{Risers}, nil},
	{"damped-bar", "a damped or flexible bar", []Slot{Handlebar, Risers}, nil},
	{"bar-ends", "open ends of the bar", []Slot{HandGuards}, nil},
	{"warm-hands", "warm hands", []Slot{Grips, HandGuards}, nil},
	{"damped-grips", "soft grips", []Slot{Grips}, nil},
	{"bolt-on-grips", "grips that bolt on", []Slot{Grips}, nil},
	{"grip-sleeves", "sleeves over the grips that are there", []Slot{Grips}, nil},
	{"with-tube", "their own throttle tube", []Slot{Grips}, nil},
	{"folding-levers", "levers that fold", []Slot{Levers}, nil},
	{"short-levers", "short levers", []Slot{Levers}, nil},
	{"adjustable-levers", "levers that come to the hand", []Slot{Levers}, nil},
	{"own-seat", "a seat for its rider", []Slot{Seat}, nil},
	{"wide-pegs", "toothed pegs", []Slot{Pegs}, []Slot{Pegs}},
	{"damped-pegs", "damped pegs", []Slot{Pegs}, nil},
	{"knee-grip", "grip for knees and calves", []Slot{KneeGrip, TankGuard, FrameGuards}, []Slot{KneeGrip}},
	{"tall-screen", "a tall screen", []Slot{Windscreen}, nil},
	{"tower", "a tower", []Slot{Windscreen}, nil},
	{"nav-place", "a mount to sit on", []Slot{NavMount, Windscreen}, []Slot{NavMount}},
	{"damped-mount", "a damped mount", []Slot{NavMount}, nil},
	{"navigation", "navigation", []Slot{Navigator}, []Slot{Navigator}},
	{"paper", "paper", []Slot{Navigator}, nil},
	{"shaken-camera", "a camera that shaking breaks", []Slot{Navigator}, nil},
	{"draws-power", "something that is fed all day", []Slot{Grips, Navigator}, nil},
	{"socket", "a charging socket", []Slot{Socket}, []Slot{Socket}},
	{"unswitched", "a feed that is always on", []Slot{Socket}, nil},
	{"raised-mudguard", "a raised mudguard", []Slot{FrontMudguard}, nil},
	{"wraps-cases", "the sides of the cases", []Slot{SkidPlate}, nil},
	{"engine-bars", "engine bars to hang on", []Slot{EngineBars}, []Slot{EngineBars}},
	{"seen-by-day", "lamps to be seen by", []Slot{DayLamps, AuxLamps, WideLamps, Headlamp}, []Slot{DayLamps}},
	{"lithium", "a lithium battery", []Slot{Battery}, nil},
	{"fork-valves", "air valves in the fork caps", []Slot{ForkCaps, Fork}, nil},
	{"thicker-oil", "thicker fork oil", []Slot{ForkOil}, nil},
	{"led-indicators", "indicators of light-emitting diodes", []Slot{Indicators}, nil},
	{"flasher", "a flasher that does not mind the load", []Slot{Indicators}, nil},
	{"with-main-beam", "lamps that follow the main beam", []Slot{LampControl}, nil},
	{"dark-beside-indicator", "lamps that go dark beside a working indicator", []Slot{LampControl}, nil},
	{"brake-flash", "a brake lamp that flashes", []Slot{BrakeLamp}, nil},
	{"lithium-charge", "a regulator that suits lithium", []Slot{Regulator}, nil},
	{"short-plate", "a short plate holder", []Slot{PlateHolder}, nil},
	{"rear-rack", "a rear rack to stand on", []Slot{RearRack}, []Slot{RearRack}},
	{"side-rack", "a side rack to hang on", []Slot{SideRack}, []Slot{SideRack}},
	{"heat-shield", "a shield against the exhaust", []Slot{SideRack, SideBags}, nil},
	{"hard-slider", "a slider of hard material", []Slot{ChainSlider}, nil},
	{"speedometer-corrected", "a corrected speedometer", []Slot{Speedometer}, []Slot{Speedometer}},
	{"balanced-front", "a balanced front wheel", []Slot{FrontLock, FrontWheel, FrontTyre}, nil},
	{"balanced-rear", "a balanced rear wheel", []Slot{RearLock, RearWheel, RearTyre}, nil},
	{"mends-tubes", "what mends tubes", []Slot{TyreKit}, []Slot{TyreKit}},
	{"mends-tubeless", "what mends tubeless tyres", []Slot{TyreKit}, nil},
	{"quiet", "a quiet silencer", []Slot{Silencer}, nil},
	{"waits-on-the-way", "a place on the way where it waits", []Slot{SpareFront, SpareRear}, nil},
	{"radiator", "a radiator", nil, nil},
	{"oil-cooler", "an oil cooler", nil, nil},
	{"chain-drive", "a chain", nil, nil},
	{"speedometer-pulse", "a speedometer that counts pulses", nil, nil},
}

// families are what belongs to a kind of bikes, by what stands before the colon.
var families = map[string]string{
	"frame": "the mounts of the frame of ", "output shaft": "the output shaft of ", "sprocket hub": "the sprocket hub of ",
	"wheel spindles": "the wheel spindles of ", "chain": "a chain ",
}

// Families lists what the tags of a bike's own kind start with.
func Families() []string { return []string{"frame", "output shaft", "sprocket hub", "wheel spindles"} }

// TagWords is how a tag is called as something that is needed; one of nobody's table
// is in words already.
func TagWords(tag string) string {
	for _, info := range tags {
		if info.Tag == tag {
			return info.Words
		}
	}
	if kind, name, ok := strings.Cut(tag, ": "); ok && families[kind] != "" {
		return families[kind] + name
	}
	return tag
}

// Gives reports whether the part provides a tag; usual is true where nobody has said so of
// one of the rider's own, and such parts do. A shelf's sheet is whole: what it does not say
// its part does not do.
func (p *Part) Gives(tag string) (gives, usual bool) {
	if slices.Contains(p.Provides, tag) {
		return true, false
	}
	if !p.Own() || slices.Contains(p.Without, tag) {
		return false, false
	}
	usual = p.Slot.usuallyGives(tag)
	return usual, usual
}

// GivesAny reports whether the part provides any tag.
func (p *Part) GivesAny() bool {
	return len(p.Provides) > 0 || p.Own() && slices.ContainsFunc(tags[:], func(info TagInfo) bool { gives, _ := p.Gives(info.Tag); return gives })
}

// usuallyGives reports whether parts of a slot provide a tag by what they are.
func (s Slot) usuallyGives(tag string) bool {
	return slices.ContainsFunc(tags[:], func(info TagInfo) bool { return info.Tag == tag && slices.Contains(info.Usual, s) })
}

// TagsBy lists what parts of a slot may provide, or with "" what a bike may.
func TagsBy(s Slot) []entry.Option {
	var list []entry.Option
	for _, info := range tags {
		if s == "" && info.By == nil || slices.Contains(info.By, s) {
			list = append(list, entry.Option{Value: info.Tag, Name: info.Words})
		}
	}
	return list
}

// KnownTags lists every tag of the table.
func KnownTags() []entry.Option {
	list := make([]entry.Option, len(tags))
	for i, info := range tags {
		list[i] = entry.Option{Value: info.Tag, Name: info.Words}
	}
	return list
}
