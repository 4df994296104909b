package garage

import (
	"crypto/sha256"
	"encoding/base32"
	"fmt"
)

// DerivedID is the id of the nth of what is made by an act: the same for the same act sent again.
func DerivedID(act string, n int) string {
	sum := sha256.Sum256(fmt.Appendf(nil, "%s %d", act, n))
	return base32.StdEncoding.EncodeToString(sum[:])[:26]
}
