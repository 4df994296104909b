package facts

import (
	"fmt"

	"valiantmule/internal/core/parts"
)

// families are the inputs by the families of kinds.
var families = [parts.FamilyCount]Set{
	parts.Wheels: InWheels, parts.Guarding: InGuards, parts.Contact: InContact, parts.Electrics: InElectrics,
	parts.Carrying: InCarrying, parts.Springing: InSprings, parts.EngineAndBrakes: InEngine,
}

func init() {
	for family, bit := range families {
		if bit == 0 {
			panic(fmt.Sprintf("facts: family %d of parts is no input", family))
		}
	}
}

// OfFamily is the input of a family of kinds.
func OfFamily(f parts.Family) Set { return families[f] }
