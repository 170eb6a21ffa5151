//! The application as people use it, in a browser.

mod all_stations;
mod building;
mod call;
mod choices;
mod clusters;
mod compare;
mod cut;
mod frames;
mod holds;
mod house;
mod keys;
mod log;
mod maker;
mod papers;
mod people;
mod photos;
mod picture;
mod prints;
mod season;
mod support;
mod table;
mod unsaved;
mod words;
