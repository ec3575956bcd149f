package demo

import "cuestart/core/club"

// first is the women's first team: 15 starters, 8 on the bench, 8 more.
var first = []club.Player{
	{Number: 1, First: "Orla", Last: "Penhallick", Position: "Prop", Foot: "right", Hand: "right"},
	{Number: 2, First: "Wren", Last: "Addlestrop", Position: "Hooker", Foot: "right", Hand: "right"},
	{Number: 3, First: "Sunniva", Last: "Croake", Position: "Prop", Foot: "right", Hand: "right"},
	{Number: 4, First: "Beatrix", Last: "Yeld", Position: "Lock", Foot: "left", Hand: "right"},
	{Number: 5, First: "Ngaio", Last: "Threlkeld", Position: "Lock", Foot: "right", Hand: "right"},
	{Number: 6, First: "Ida", Last: "Marrable", Position: "Flanker", Foot: "right", Hand: "left"},
	{Number: 7, First: "Tamsin", Last: "Okoro-Vane", Position: "Flanker", Foot: "right", Hand: "right"},
	{Number: 8, First: "Hester", Last: "Quillfeather", Position: "Number eight", Foot: "right", Hand: "right"},
	{Number: 9, First: "Pia", Last: "Lindqvarn", Position: "Scrum-half", Foot: "both", Hand: "right"},
	{Number: 10, First: "Juno", Last: "Ketterick", Position: "Fly-half", Foot: "left", Hand: "right"},
	{Number: 11, First: "Amara", Last: "Fosse", Position: "Wing", Foot: "right", Hand: "right"},
	{Number: 12, First: "Lotte", Last: "Brindlemere", Position: "Centre", Foot: "right", Hand: "both"},
	{Number: 13, First: "Eseld", Last: "Tawse", Position: "Centre", Foot: "right", Hand: "right"},
	{Number: 14, First: "Rosamund", Last: "Achterberg", Position: "Wing", Foot: "left", Hand: "left"},
	{Number: 15, First: "Mara", Last: "Tolland", Position: "Full-back", Foot: "right", Hand: "right"},
	{Number: 16, First: "Fenella", Last: "Dray", Position: "Hooker", Foot: "right", Hand: "right"},
	{Number: 17, First: "Gwen", Last: "Osterley", Position: "Prop", Foot: "right", Hand: "right"},
	{Number: 18, First: "Nimue", Last: "Hask", Position: "Prop", Foot: "right", Hand: "right"},
	{Number: 19, First: "Dilys", Last: "Ravenhall", Position: "Lock", Foot: "right", Hand: "left"},
	{Number: 20, First: "Ottoline", Last: "Speke", Position: "Flanker", Foot: "right", Hand: "right"},
	{Number: 21, First: "Carys", Last: "Umber", Position: "Scrum-half", Foot: "left", Hand: "right"},
	{Number: 22, First: "Zadie", Last: "Wolcombe", Position: "Centre", Foot: "right", Hand: "right"},
	{Number: 23, First: "Isolde", Last: "Van der Meerle", Position: "Wing", Foot: "right", Hand: "right"},
	{Number: 24, First: "Bronagh", Last: "Tice", Position: "Prop", Foot: "right", Hand: "right"},
	{Number: 25, First: "Keziah", Last: "Lorne", Position: "Lock", Foot: "right", Hand: "right"},
	{Number: 26, First: "Petra", Last: "Ashgill", Position: "Flanker", Foot: "right", Hand: "right"},
	{Number: 27, First: "Sabine", Last: "Hollin", Position: "Scrum-half", Foot: "right", Hand: "left"},
	{Number: 28, First: "Maeve", Last: "Corrigal", Position: "Fly-half", Foot: "right", Hand: "right"},
	{Number: 29, First: "Thea", Last: "Winstray", Position: "Centre", Foot: "left", Hand: "right"},
	{Number: 30, First: "Anouk", Last: "Bellwether", Position: "Wing", Foot: "right", Hand: "right"},
	{Number: 31, First: "Linnet", Last: "Farrow-Okafor", Position: "Full-back", Foot: "both", Hand: "right"},
}

// under16 is the junior side.
var under16 = []club.Player{
	{Number: 1, First: "Posy", Last: "Arkle", Position: "Prop", Foot: "right", Hand: "right"},
	{Number: 2, First: "Blythe", Last: "Cottam", Position: "Hooker", Foot: "right", Hand: "right"},
	{Number: 3, First: "Erin", Last: "Dunstall", Position: "Prop", Foot: "right", Hand: "right"},
	{Number: 4, First: "Freya", Last: "Elstob", Position: "Lock", Foot: "right", Hand: "right"},
	{Number: 5, First: "Greta", Last: "Farnaby", Position: "Lock", Foot: "left", Hand: "right"},
	{Number: 6, First: "Hana", Last: "Gisburn", Position: "Flanker", Foot: "right", Hand: "right"},
	{Number: 7, First: "Imogen", Last: "Hexley", Position: "Flanker", Foot: "right", Hand: "left"},
	{Number: 8, First: "Jola", Last: "Inskip", Position: "Number eight", Foot: "right", Hand: "right"},
	{Number: 9, First: "Kit", Last: "Jessop-Lay", Position: "Scrum-half", Foot: "right", Hand: "right"},
	{Number: 10, First: "Liv", Last: "Kelda", Position: "Fly-half", Foot: "left", Hand: "right"},
	{Number: 11, First: "Merryn", Last: "Lathkill", Position: "Wing", Foot: "right", Hand: "right"},
	{Number: 12, First: "Nell", Last: "Mossop", Position: "Centre", Foot: "right", Hand: "right"},
	{Number: 13, First: "Oona", Last: "Nethergate", Position: "Centre", Foot: "right", Hand: "right"},
	{Number: 14, First: "Perdita", Last: "Oxley", Position: "Wing", Foot: "right", Hand: "right"},
	{Number: 15, First: "Romy", Last: "Pask", Position: "Full-back", Foot: "right", Hand: "right"},
}
