package account_test

import (
	"encoding/base32"
	"encoding/base64"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/account"
	"valiantmule/internal/referee"
)

// TestSecondStep by the vectors of RFC 6238, appendix B, for SHA-1: our codes are the last six
// of their eight digits.
func TestSecondStep(t *testing.T) {
	secret := base32.StdEncoding.EncodeToString([]byte("12345678901234567890"))
	for at, code := range map[int64]string{
		59: "94287082", 1111111109: "07081804", 1111111111: "14050471", 1234567890: "89005924", 2000000000: "69279037", 20000000000: "65353130",
	} {
		now, six := time.Unix(at, 0), code[2:]
		step, ok := account.SecondStep(secret, six, now, 0)
		require.True(t, ok, code)
		assert.Equal(t, at/30, step)
		_, ok = account.SecondStep(secret, six[:3]+" "+six[3:], now, 0)
		assert.True(t, ok, "with the blank that programs show")
		for _, shift := range []time.Duration{-30 * time.Second, 30 * time.Second} {
			_, ok = account.SecondStep(secret, six, now.Add(shift), 0)
			assert.True(t, ok, "clocks differ")
		}
		for _, shift := range []time.Duration{-90 * time.Second, 90 * time.Second} {
			_, ok = account.SecondStep(secret, six, now.Add(shift), 0)
			assert.False(t, ok)
		}
		_, ok = account.SecondStep(secret, six, now, step)
		assert.False(t, ok, "taken once")
		_, ok = account.SecondStep(secret, six, now.Add(90*time.Second), step+1000)
		assert.False(t, ok)
	}
	for _, none := range []string{"", "12345", "1234567", "abcdef", "٠١٢٣٤٥"} {
		_, ok := account.SecondStep(secret, none, time.Unix(59, 0), 0)
		assert.False(t, ok, none)
	}
}

// TestSecondPicture holds the secret that is made, in letters too; the picture is read by
// zbarimg, a reader of such pictures.
func TestSecondPicture(t *testing.T) {
	secret, err := account.NewSecond("Ada Röök/:?")
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(secret), 32, "160 bits (RFC 4226, section 4)")
	picture, letters, err := account.SecondPicture("Ada Röök/:?", secret)
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(picture, "data:image/png;base64,"))
	assert.Equal(t, secret, strings.ReplaceAll(letters, "-", ""))

	zbar := referee.Program(t, "zbarimg", "zbar-tools")
	data, err := base64.StdEncoding.DecodeString(picture[len("data:image/png;base64,"):])
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "second.png")
	require.NoError(t, os.WriteFile(file, data, 0o600))
	read, err := exec.Command(zbar, "-q", "--raw", file).Output()
	require.NoError(t, err)
	at, err := url.Parse(strings.TrimSpace(string(read)))
	require.NoError(t, err)
	assert.Equal(t, "otpauth", at.Scheme)
	assert.Equal(t, "totp", at.Host)
	assert.Equal(t, secret, at.Query().Get("secret"))
}

func TestRecoveryCodes(t *testing.T) {
	code := account.RecoveryCode("ABCDEFGHIJKLMNOPQRSTUVWXYZ")
	assert.Equal(t, "ABCD-EFGH-IJKL-MNOP", code)
	for _, typed := range []string{code, "abcd efgh ijkl mnop", "abcdefghijklmnop", " ABCD–EFGH—IJKL-MNOP "} {
		assert.Equal(t, "ABCDEFGHIJKLMNOP", account.PlainCode(typed), typed)
	}
	for _, none := range []string{"", "ABCD", code + "Q"} {
		assert.Empty(t, account.PlainCode(none))
	}
}

func TestAddresses(t *testing.T) {
	for _, good := range []string{"ada@example.org", " ada.rook+mule@sub.example.org "} {
		address, err := account.CheckAddress(good)
		require.NoError(t, err)
		assert.Equal(t, strings.TrimSpace(good), address)
	}
	for _, bad := range []string{"", "ada", "Ada <ada@example.org>", "ada@example.org, eve@example.org", "ada@example.org\nBcc: eve@example.org", strings.Repeat("a", 250) + "@b.example"} {
		_, err := account.CheckAddress(bad)
		assert.Error(t, err, bad)
	}
}
