// SPDX-License-Identifier: GPL-3.0-or-later
// What the things in a library have, once for every reader and writer, and how it is typed.
#pragma once

#include "library/library.hpp"
#include "words/message.hpp"

#include <variant>

namespace tectonis {

struct FieldSpec {
    enum class Quantity { Text, Word, Length, Weight, Number, YesNo };
    const char* name; ///< in files
    Label title;      ///< for people
    Quantity quantity = Quantity::Text;
    double least = 0, most = 0;       ///< of numbers
    std::vector<const char*> words{}; ///< of Quantity::Word
    bool zero = false;                ///< nothing is a value like others, not one that is left open
    bool ofStudio = false;            ///< what this studio has: designs neither carry it nor are held against it
};

template <class Item> struct Field : FieldSpec {
    std::variant<std::string Item::*, double Item::*, bool Item::*> member;
};

/// All fields of a Material, a Good or a Workshop; the first names it in files.
template <class Item> const std::vector<Field<Item>>& fieldsOf();
template <> const std::vector<Field<Material>>& fieldsOf();
template <> const std::vector<Field<Good>>& fieldsOf();
template <> const std::vector<Field<Workshop>>& fieldsOf();

/// A copy with the fields of the studio as @p mine has them.
template <class Item> Item withStudios(Item item, const Item& mine)
{
    for (const auto& field : fieldsOf<Item>())
        if (field.ofStudio)
            std::visit([&](auto member) { item.*member = mine.*member; }, field.member);
    return item;
}

/// Set a value from typed text. Return what is wrong with the text; empty if nothing, and only then it is changed.
Message setValue(std::string& to, const FieldSpec& field, const std::string& text);
Message setValue(double& to, const FieldSpec& field, const std::string& text);
Message setValue(bool& to, const FieldSpec& field, const std::string& text);
template <class Item> Message setField(Item& item, const Field<Item>& field, const std::string& text)
{
    return std::visit([&](auto member) { return setValue(item.*member, field, text); }, field.member);
}

std::string valueText(const std::string& value);
std::string valueText(double value);
std::string valueText(bool value);
/// The field as text that setField() reads back to the same; yes and no in words.
template <class Item> std::string fieldText(const Item& item, const Field<Item>& field)
{
    return std::visit([&](auto member) { return valueText(item.*member); }, field.member);
}

/// "a length was expected": what is wrong with what a field cannot take at all.
Message expected(const FieldSpec& field);

/// Give a thing its id, made from the name, if it has none. Return what it still lacks; empty if nothing.
Message completed(Material& material);
Message completed(Good& good);
Message completed(Workshop& workshop);

inline std::string& idOf(Material& m) { return m.id; }
inline std::string& idOf(Good& g) { return g.id; }
inline std::string& idOf(Workshop& w) { return w.machine; } ///< it has no other name
template <class Item> const std::string& idOf(const Item& item) { return idOf(const_cast<Item&>(item)); }

/// UTF-8 of at most 200 bytes without control characters?
bool printable(const std::string& text);

} // namespace tectonis
