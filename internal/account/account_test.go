package account_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/account"
)

func TestNames(t *testing.T) {
	for typed, clean := range map[string]string{
		"  Ada  Rook ": "Ada Rook", "A\u0301da": "Áda", "Ада": "Ада", "阿達": "阿達", strings.Repeat("x", 60): strings.Repeat("x", 60), "R2": "R2",
	} {
		name, err := account.CleanName(typed)
		assert.NoError(t, err, typed)
		assert.Equal(t, clean, name)
	}
	for _, typed := range []string{"", " \t ", strings.Repeat("x", 61), "Ada\x00", "A\u200bda", "\u202eadA", "Ada\ufeff", "A\x7fda", "\xffAda", "\u0301", "...", "A\u2066da", "Ada\u00ad"} {
		_, err := account.CleanName(typed)
		assert.Error(t, err, "%q", typed)
	}
}

func TestFold(t *testing.T) {
	for _, same := range [][]string{
		{"Ada Rook", "ada rook", "ＡＤＡ　ROOK", "Áda  Rook", "A\u0301da Rook"}, {"Straße", "STRASSE"}, {"ﬁn", "FIN"},
	} {
		for _, name := range same {
			assert.Equal(t, account.Fold(same[0]), account.Fold(name), name)
		}
	}
	assert.NotEqual(t, account.Fold("Ada"), account.Fold("Ida"))
	assert.Equal(t, account.Fold("Ada"), account.Fold(account.Fold("Ada")))
}

func TestPasswords(t *testing.T) {
	for _, good := range []string{"correct horse", "three words mule", "nine пони в саду", strings.Repeat("x7Qz", 18)} {
		assert.NoError(t, account.CheckPassword(good, "Ada"), good)
	}
	for _, bad := range []string{
		"elevenchars", strings.Repeat("x7Qz", 18) + "!", "            ", "aaaaaaaaaaaa", "abababababab", "qwerty123456", "1Q2W3E4R5T6Y", "password1234", "password!!!!",
		"passwordpassword", "Ada Lovelace", "ada lovelaceADA LOVELACE", "\xff\xfe234567890123",
	} {
		assert.Error(t, account.CheckPassword(bad, "Ada Lovelace"), "%q", bad)
	}
}
