package fit

// This file is what manuals and labels hardly ever say and what is nearly always so.
// An answer that rests on it counts as sure and says "as usual"; a person can look.
// Only bare things are usual: a tall heatsink or spreader is not.

import "deepbay/internal/core/quantity"

const (
	// An M.2 card is 22 mm wide; 25 and 30 mm are made for few sockets (PCI Express
	// M.2, card outlines).
	usualCardWidth quantity.Millimetres = 22
	// A bare M.2 card stands no higher than 1.5 mm above its board (PCI Express M.2,
	// component heights S1 to S3 and D1 to D3 above the board), and an open socket
	// clears that.
	bareCardTop   quantity.Millimetres = 1.5
	openSocketTop quantity.Millimetres = 2.4
	// Chips on the under side are at most 1.5 mm high (D5); sockets for 22 mm cards of
	// today hold them 2.4 mm above the board or more, except those stated as low.
	bareCardUnder   quantity.Millimetres = 1.5
	openSocketUnder quantity.Millimetres = 1.5
	// A module without a tall spreader is 31.25 mm high, short ones 30 (JEDEC module
	// outlines MO-309, MO-310); the cooler that came with a machine clears it.
	bareModule quantity.Millimetres = 31.25
	// 2.5-inch drives are 7 or 9.5 mm high (SFF-8201), taller ones are sold as such;
	// bays for 3.5-inch drives take 26.1 mm (SFF-8301).
	usualFlatDrive quantity.Millimetres = 9.5
	usualTallDrive quantity.Millimetres = 26.1
	// Slim optical drives are 9.5 or 12.7 mm high (SFF-8552, SFF-8553); those of full size
	// have half height, 41.3 mm, as their bays (SFF-8551).
	flatSlim        quantity.Millimetres = 9.5
	tallSlim        quantity.Millimetres = 12.7
	usualHalfHeight quantity.Millimetres = 41.5
	// A card that is no graphics card is of half length or shorter, 167.65 mm (PCI
	// Express CEM), and a case with full slots clears that.
	halfLength quantity.Millimetres = 167.65
)
