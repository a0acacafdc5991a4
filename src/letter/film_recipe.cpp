// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/film_recipe.h"

#include "review/tell/beside.h"

#include <algorithm>

namespace jg {

Message wholeTitle(const FilmRecipe& recipe) {
    return msg(recipe.captureFps > 0 ? "film.whole" : "film.whole-unknown-rate");
}

const MeasureGhost* ghostIn(const ToldDelivery& told, const std::string& measure) {
    const auto it = told.ghosts.find(measure);
    return it == told.ghosts.end() ? nullptr : &it->second;
}

const ToldDelivery& toldIn(const FilmRecipe& recipe, int delivery) {
    for (const ToldDelivery& told : recipe.others)
        if (told.marks.number == delivery) return told;
    return recipe;
}

const ToldBeside* besideIn(const FilmRecipe& recipe, const Stop& stop) {
    const auto it = stop.beside ? recipe.beside.find(stop.id) : recipe.beside.end();
    return it == recipe.beside.end() ? nullptr : &it->second;
}

std::string picturedMeasure(const FilmRecipe& recipe, const ToldDelivery& told, const std::string& finding) {
    return picturedMeasure(recipe.playbook, told.assessment, finding);
}

} // namespace jg
