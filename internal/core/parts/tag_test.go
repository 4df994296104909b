package parts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/parts"
)

// TestNotSaidIsNotNo: what a thing of its kind does by nature one of the rider's own does until
// somebody says no; a shelf's sheet is whole.
func TestNotSaidIsNotNo(t *testing.T) {
	own := func(slot parts.Slot) *parts.Part { return &parts.Part{ID: "own-mine", Slot: slot, Name: "Mine"} }
	says := func(p *parts.Part, key, word string) *parts.Part {
		d := parts.DraftOf(p)
		for _, a := range d.Asks() {
			for _, pick := range a.Picks {
				if pick.Key == key {
					pick.Set(word)
				}
			}
		}
		return d.Done()
	}
	for slot, tag := range map[parts.Slot]string{parts.TyreKit: "mends-tubes", parts.Pegs: "wide-pegs", parts.DayLamps: "seen-by-day", parts.Socket: "socket"} {
		gives, usual := own(slot).Gives(tag)
		assert.True(t, gives && usual, tag)
		gives, _ = (&parts.Part{ID: "shelf", Slot: slot}).Gives(tag)
		assert.False(t, gives, "%s of a shelf that does not say so", tag)
		no := says(own(slot), "provides."+tag, entry.Saids()[1].Value)
		gives, _ = no.Gives(tag)
		assert.False(t, gives, "somebody said no")
		yes := says(no, "provides."+tag, entry.Saids()[0].Value)
		gives, usual = yes.Gives(tag)
		assert.True(t, gives && !usual, "somebody said yes")
		assert.Empty(t, yes.Without)
	}
	gives, _ := own(parts.Silencer).Gives("quiet")
	assert.False(t, gives, "not by nature")
}

// TestGuardsOfOnesOwn cover their place at the usual share until somebody says.
func TestGuardsOfOnesOwn(t *testing.T) {
	own := &parts.Part{ID: "own-mine", Slot: parts.SkidPlate, Name: "Bent sheet"}
	covers, usual := own.Covers()
	assert.True(t, usual)
	assert.True(t, own.Guards(guard.Sump))
	assert.NotEmpty(t, covers)
	d := parts.DraftOf(own)
	*d.Covers() = covers[:1]
	said, usual := d.Done().Covers()
	assert.False(t, usual)
	assert.Equal(t, covers[:1], said)
	assert.False(t, (&parts.Part{ID: "shelf", Slot: parts.SkidPlate}).Guards(guard.Sump))
}
