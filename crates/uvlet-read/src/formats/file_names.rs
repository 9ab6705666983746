//! How a runtime makes the file name of a chunk from its id, as in
//! `e=>"js/"+(528===e?"reports":e)+"."+{21:"37a02ef4"}[e]+".js"`: the function is read once and then
//! asked for every id.

use std::collections::BTreeMap;

use uvlet_script::{
    ast::{
        ArrowFunctionBody, BindingPattern, Expression, FormalParameters, FunctionBody,
        ObjectPropertyKind, PropertyKey, Statement,
    },
    operator::{BinaryOperator, LogicalOperator},
};

/// A part of a name, or the whole.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum FileName {
    Text(String),
    /// The chunk's id.
    Id,
    /// What a table holds for the id.
    Table(BTreeMap<String, String>),
    /// One thing for one id, and another for all others.
    If {
        id: String,
        then: Box<Self>,
        other: Box<Self>,
    },
    /// The first that there is.
    Either(Box<Self>, Box<Self>),
    Join(Vec<Self>),
    /// Nothing that can be described.
    Unknown,
}

impl FileName {
    /// Reads a function of one parameter.
    pub fn of(function: &Expression<'_>) -> Self {
        let (parameters, body) = match function.get_inner_expression() {
            Expression::ArrowFunctionExpression(arrow) => match &arrow.body {
                ArrowFunctionBody::FunctionBody(body) => (&arrow.params, returned(body)),
                body => (&arrow.params, body.as_expression()),
            },
            Expression::FunctionExpression(function) => {
                (&function.params, function.body.as_deref().and_then(returned))
            }
            _ => return Self::Unknown,
        };
        match (parameter(parameters), body) {
            (Some(id), Some(body)) => part(body, id),
            _ => Self::Unknown,
        }
    }

    /// The name for an id, if it has one.
    pub fn of_chunk(&self, id: &str) -> Option<String> {
        match self {
            Self::Text(text) => Some(text.clone()),
            Self::Id => Some(id.to_owned()),
            Self::Table(table) => table.get(id).cloned(),
            Self::If { id: one, then, other } => {
                if one == id {
                    then.of_chunk(id)
                } else {
                    other.of_chunk(id)
                }
            }
            Self::Either(a, b) => a.of_chunk(id).or_else(|| b.of_chunk(id)),
            Self::Join(parts) => parts.iter().map(|part| part.of_chunk(id)).collect(),
            Self::Unknown => None,
        }
    }

    /// The ids that it tells apart.
    pub fn ids(&self) -> Vec<&str> {
        match self {
            Self::Table(table) => table.keys().map(String::as_str).collect(),
            Self::If { id, then, other } => [vec![id.as_str()], then.ids(), other.ids()].concat(),
            Self::Either(a, b) => [a.ids(), b.ids()].concat(),
            Self::Join(parts) => parts.iter().flat_map(Self::ids).collect(),
            Self::Text(_) | Self::Id | Self::Unknown => Vec::new(),
        }
    }
}

fn parameter<'e>(parameters: &'e FormalParameters<'_>) -> Option<&'e str> {
    match &parameters.items.first()?.pattern {
        BindingPattern::BindingIdentifier(name) => Some(name.name.as_str()),
        _ => None,
    }
}

fn returned<'e, 'a>(body: &'e FunctionBody<'a>) -> Option<&'e Expression<'a>> {
    match body.statements.as_slice() {
        [Statement::ReturnStatement(only)] => only.argument.as_ref(),
        _ => None,
    }
}

/// A key of an object literal as text.
pub fn key(key: &PropertyKey<'_>) -> Option<String> {
    Some(match key {
        PropertyKey::NumericLiteral(id) => id.value.to_string(),
        PropertyKey::StringLiteral(id) => id.value.to_string(),
        PropertyKey::StaticIdentifier(id) => id.name.to_string(),
        _ => return None,
    })
}

fn literal(expression: &Expression<'_>) -> Option<String> {
    match expression.get_inner_expression() {
        Expression::StringLiteral(text) => Some(text.value.to_string()),
        Expression::NumericLiteral(number) => Some(number.value.to_string()),
        _ => None,
    }
}

fn part(expression: &Expression<'_>, id: &str) -> FileName {
    let is_id = |expression: &Expression<'_>| matches!(expression.get_inner_expression(), Expression::Identifier(name) if name.name == id);
    match expression.get_inner_expression() {
        expression if is_id(expression) => FileName::Id,
        Expression::BinaryExpression(sum) if sum.operator == BinaryOperator::Addition => {
            let mut parts = Vec::new();
            for side in [&sum.left, &sum.right] {
                match part(side, id) {
                    FileName::Join(inner) => parts.extend(inner),
                    side => parts.push(side),
                }
            }
            FileName::Join(parts)
        }
        Expression::TemplateLiteral(template) => {
            let texts =
                template.quasis.iter().map(|quasi| FileName::Text(quasi.value.raw.to_string()));
            let holes = template.expressions.iter().map(|hole| part(hole, id)).map(Some);
            let holes = holes.chain([None]);
            FileName::Join(
                texts.zip(holes).flat_map(|(text, hole)| [Some(text), hole]).flatten().collect(),
            )
        }
        Expression::ConditionalExpression(choice) => {
            let Expression::BinaryExpression(test) = choice.test.get_inner_expression() else {
                return FileName::Unknown;
            };
            let is_equal =
                matches!(test.operator, BinaryOperator::Equality | BinaryOperator::StrictEquality);
            let one = match (is_id(&test.left), is_id(&test.right)) {
                (true, false) => literal(&test.right),
                (false, true) => literal(&test.left),
                _ => None,
            };
            match one.filter(|_| is_equal) {
                Some(one) => FileName::If {
                    id: one,
                    then: Box::new(part(&choice.consequent, id)),
                    other: Box::new(part(&choice.alternate, id)),
                },
                None => FileName::Unknown,
            }
        }
        Expression::LogicalExpression(either)
            if matches!(either.operator, LogicalOperator::Or | LogicalOperator::Coalesce) =>
        {
            FileName::Either(Box::new(part(&either.left, id)), Box::new(part(&either.right, id)))
        }
        Expression::ComputedMemberExpression(member) if is_id(&member.expression) => {
            let Expression::ObjectExpression(table) = member.object.get_inner_expression() else {
                return FileName::Unknown;
            };
            let rows = table.properties.iter().filter_map(|property| match property {
                ObjectPropertyKind::ObjectProperty(property) => {
                    Some((key(&property.key)?, literal(&property.value)?))
                }
                ObjectPropertyKind::SpreadProperty(_) => None,
            });
            FileName::Table(rows.collect())
        }
        expression => literal(expression).map_or(FileName::Unknown, FileName::Text),
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;
    use uvlet_script::{Dialect, ast::Statement, read};

    use super::FileName;

    #[rstest]
    #[case(
        r#"e=>"js/"+(528===e?"reports":e)+"."+{21:"37a",528:"9f0"}[e]+".js""#,
        "528",
        Some("js/reports.9f0.js")
    )]
    #[case(
        r#"e=>"js/"+(528===e?"reports":e)+"."+{21:"37a",528:"9f0"}[e]+".js""#,
        "21",
        Some("js/21.37a.js")
    )]
    #[case(r#"e=>"js/"+(528===e?"reports":e)+"."+{21:"37a",528:"9f0"}[e]+".js""#, "7", None)]
    #[case(r#"e=>({7:"account"}[e]||e)+".js""#, "7", Some("account.js"))]
    #[case(r#"e=>({7:"account"}[e]||e)+".js""#, "8", Some("8.js"))]
    #[case("function(e){return `c/${e}.${{a:'x'}[e]}.css`}", "a", Some("c/a.x.css"))]
    #[case("e=>f(e)", "7", None)]
    fn names_of_chunks(#[case] text: &str, #[case] id: &str, #[case] name: Option<&str>) {
        let found =
            read(&format!("({text})"), Dialect::Emitted, |script| match &script.program.body[0] {
                Statement::ExpressionStatement(only) => FileName::of(&only.expression).of_chunk(id),
                _ => None,
            });
        assert_eq!(found.unwrap().as_deref(), name, "{text}");
    }
}
