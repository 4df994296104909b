package web

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/calc"
)

func TestPlainNumber(t *testing.T) {
	mm, code := calc.Key{Kind: calc.Number, Unit: "mm"}, calc.Key{Kind: calc.Text}
	for text, want := range map[string]string{
		"12,7": "12.7", "0.625 in": "15.875", "25 in": "635", "590 mm": "590", "3 parsecs": "3 parsecs", "near": "near", "": "",
	} {
		assert.Equal(t, want, plainNumber(text, mm), text)
	}
	assert.Equal(t, "104@570,22@-120", plainNumber("104@570,22@-120", code), "a list keeps its commas")
}

func TestLocalPath(t *testing.T) {
	for path, want := range map[string]string{"/garage": "/garage", "//evil.example": "/", "https://evil.example": "/", "/\\evil.example": "/", "": "/"} {
		assert.Equal(t, want, localPath(path), path)
	}
}
