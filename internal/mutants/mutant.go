package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"strconv"
	"strings"
)

// mutant is one change of a file: the bytes from one place to another, and what stands there instead.
type mutant struct {
	file     string
	line     int
	from, to int
	instead  string
	source   []byte
}

func (m mutant) text() []byte {
	return append(append(append([]byte{}, m.source[:m.from]...), m.instead...), m.source[m.to:]...)
}

func (m mutant) String() string { return fmt.Sprintf("%s:%d: %s", m.file, m.line, m.change()) }

// change is what is changed, in one line.
func (m mutant) change() string {
	one := func(s string) string {
		s = strings.Join(strings.Fields(s), " ")
		if len(s) > 60 {
			s = s[:60] + "…"
		}
		return s
	}
	return fmt.Sprintf("%q for %q", one(m.instead), one(string(m.source[m.from:m.to])))
}

// other is what each operator is taken for.
var other = map[token.Token]string{
	token.LSS: "<=", token.LEQ: "<", token.GTR: ">=", token.GEQ: ">", token.EQL: "!=", token.NEQ: "==",
	token.ADD: "-", token.SUB: "+", token.MUL: "/", token.QUO: "*", token.LAND: "||", token.LOR: "&&",
	token.ADD_ASSIGN: "-=", token.SUB_ASSIGN: "+=", token.MUL_ASSIGN: "/=",
}

// nothingToNotice are calls of which arguments are left alone: how much room is made for, and what is said of a mistake.
var nothingToNotice = map[string]bool{"make": true, "panic": true}

// mutantsOf lists every change that can be made to a file.
func mutantsOf(file string) (all []mutant, err error) {
	source, err := os.ReadFile(file)
	if err != nil {
		return nil, err
	}
	set := token.NewFileSet()
	tree, err := parser.ParseFile(set, file, source, parser.SkipObjectResolution)
	if err != nil {
		return nil, err
	}
	at := func(p token.Pos) int { return set.Position(p).Offset }
	change := func(from, to token.Pos, instead string) {
		all = append(all, mutant{file, set.Position(from).Line, at(from), at(to), instead, source})
	}
	operator := func(p token.Pos, op token.Token) {
		if o := other[op]; o != "" {
			change(p, p+token.Pos(len(op.String())), o)
		}
	}
	ast.Inspect(tree, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec, *ast.StructType:
			return false
		case *ast.CallExpr:
			if name, ok := n.Fun.(*ast.Ident); ok && nothingToNotice[name.Name] {
				return false
			}
		case *ast.BinaryExpr:
			if text := string(source[at(n.Pos()):at(n.End())]); text == "err != nil" || text == "err == nil" {
				return false // that trouble is passed on is asked by taking disks and databases away
			}
			operator(n.OpPos, n.Op)
		case *ast.AssignStmt:
			operator(n.TokPos, n.Tok)
			if n.Tok != token.DEFINE {
				change(n.Pos(), n.End(), "")
			}
		case *ast.ExprStmt:
			change(n.Pos(), n.End(), "")
		case *ast.IfStmt:
			text := string(source[at(n.Cond.Pos()):at(n.Cond.End())])
			if strings.Contains(text, "err != nil") {
				return true
			}
			change(n.Cond.Pos(), n.Cond.End(), "false && ("+text+")")
		case *ast.UnaryExpr:
			if n.Op == token.NOT {
				change(n.OpPos, n.OpPos+1, "")
			}
		case *ast.Ident, *ast.BasicLit:
			if instead := otherConstant(n); instead != "" {
				change(n.Pos(), n.End(), instead)
			}
		}
		return true
	})
	return all, nil
}

// otherConstant is what a truth value or a number is taken for; empty for anything else.
func otherConstant(n ast.Node) string {
	switch n := n.(type) {
	case *ast.Ident:
		return map[string]string{"true": "false", "false": "true"}[n.Name]
	case *ast.BasicLit:
		if n.Kind == token.INT {
			if v, err := strconv.Atoi(n.Value); err == nil {
				return strconv.Itoa(v + 1)
			}
		} else if n.Kind == token.FLOAT {
			if v, err := strconv.ParseFloat(n.Value, 64); err == nil {
				return strconv.FormatFloat(v*1.5+0.1, 'g', -1, 64)
			}
		}
	}
	return ""
}
