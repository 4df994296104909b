package account

import (
	"bytes"
	"encoding/base32"
	"encoding/base64"
	"fmt"
	"image/png"
	"net/mail"
	"strings"
	"time"
	"unicode"

	"github.com/pquerna/otp/hotp"
	"github.com/pquerna/otp/totp"
)

// issuer is what a rider's program for codes calls this site.
const issuer = "Valiant Mule"

// stepSeconds is how long a code holds, and either neighbour is taken too: clocks differ
// (RFC 6238, section 5.2).
const stepSeconds = 30

// NewSecond makes the secret of a second factor, in base 32.
func NewSecond(name string) (secret string, err error) {
	key, err := totp.Generate(totp.GenerateOpts{Issuer: issuer, AccountName: name})
	if err != nil {
		return "", err
	}
	return key.Secret(), nil
}

// SecondPicture is the secret as a picture that programs for codes read, as an address of
// its data, and the same in letters.
func SecondPicture(name, secret string) (picture, letters string, err error) {
	raw, err := base32.StdEncoding.WithPadding(base32.NoPadding).DecodeString(secret)
	if err != nil {
		return "", "", err
	}
	key, err := totp.Generate(totp.GenerateOpts{Issuer: issuer, AccountName: name, Secret: raw})
	if err != nil {
		return "", "", err
	}
	const side = 232 // pixels
	image, err := key.Image(side, side)
	if err != nil {
		return "", "", err
	}
	var out bytes.Buffer
	if err := png.Encode(&out, image); err != nil {
		return "", "", err
	}
	return "data:image/png;base64," + base64.StdEncoding.EncodeToString(out.Bytes()), inFours(secret), nil
}

// SecondStep is the step of time whose code this is, of the one now and its neighbours, where
// it lies after the last that was taken: none is taken twice.
func SecondStep(secret, code string, now time.Time, last int64) (step int64, ok bool) {
	code = plain(code)
	at := now.Unix() / stepSeconds
	last = min(last, at+1) // a clock that was ahead keeps nobody out
	for _, step := range []int64{at, at - 1, at + 1} {
		if step > last && hotp.Validate(code, uint64(step), secret) {
			return step, true
		}
	}
	return 0, false
}

// A recovery code is sixteen letters of 32: 80 bits, which nobody guesses.
const codeLetters = 16

// RecoveryCode is a code as it is shown, of random letters.
func RecoveryCode(random string) string { return inFours(random[:codeLetters]) }

// PlainCode is a recovery code as it is compared, however it was typed; "" for what is none.
func PlainCode(typed string) string {
	if code := strings.ToUpper(plain(typed)); len(code) == codeLetters {
		return code
	}
	return ""
}

func plain(typed string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) {
			return r
		}
		return -1
	}, typed)
}

func inFours(letters string) string {
	var out strings.Builder
	for i, r := range letters {
		if i > 0 && i%4 == 0 {
			out.WriteByte('-')
		}
		out.WriteRune(r)
	}
	return out.String()
}

// mostAddress is how long an address can be (RFC 5321, section 4.5.3.1.3, less its brackets).
const mostAddress = 254

// CheckAddress makes sure of an address for letters: one, and no more.
func CheckAddress(typed string) (string, error) {
	address := strings.TrimSpace(typed)
	parsed, err := mail.ParseAddress(address)
	if err != nil || parsed.Address != address || len(address) > mostAddress {
		return "", fmt.Errorf("want one address such as ada@example.org, of at most %d letters", mostAddress)
	}
	return address, nil
}
