package web

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/calc"
	"valiantmule/internal/words"
)

func TestPlainNumber(t *testing.T) {
	mm, code := calc.Key{Kind: calc.Number, Unit: "mm"}, calc.Key{Kind: calc.Text}
	for text, want := range map[string]string{
		"12,7": "12.7", "0.625 in": "15.875", "25 in": "635", "590 mm": "590", "3 parsecs": "3 parsecs", "near": "near", "": "",
	} {
		got, err := plainNumber(nil, text, mm)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	list, err := plainNumber(nil, "104@570,22@-120", code)
	require.NoError(t, err)
	assert.Equal(t, "104@570,22@-120", list, "a list keeps its commas")
	_, err = plainNumber(nil, "1,250", mm)
	assert.Error(t, err, "asked back")
	us, err := plainNumber(words.Units{"number": "point"}, "1,250", mm)
	require.NoError(t, err)
	assert.Equal(t, "1250", us)
}

func TestLocalPath(t *testing.T) {
	for path, want := range map[string]string{"/garage": "/garage", "//evil.example": "/", "https://evil.example": "/", "/\\evil.example": "/", "": "/", "/\t/evil.example": "/", "/\n/evil.example": "/", "/\u0085/evil": "/"} {
		assert.Equal(t, want, localPath(path), path)
	}
}
