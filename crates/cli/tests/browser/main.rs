//! The application as people use it, in a browser.

mod compare;
mod holds;
mod house;
mod maker;
mod people;
mod picture;
mod support;
mod table;
