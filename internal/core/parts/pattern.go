package parts

import "strings"

// Pattern is the name of a tyre without its size, by which the front and the rear one of a
// pattern are told to be two of it; "" for what is no tyre. A maker writes the size behind the
// name [practice].
func (p *Part) Pattern() string {
	if p.Tyre() == nil {
		return ""
	}
	var words []string
	for _, word := range strings.Fields(p.Name) {
		if strings.ContainsAny(word[:1], "0123456789") {
			break
		}
		words = append(words, strings.TrimSuffix(word, ","))
	}
	return strings.Join(words, " ")
}
