using System.Linq.Expressions;
using System.Reflection;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Nailcrow.Store.Products;

/// <summary>LIKE takes letters in any case on SQLite and by their case on PostgreSQL, where ILIKE is what our questions mean.</summary>
internal sealed class InAnyCase : IQueryExpressionInterceptor
{
    /// <summary>One for all: those that differ would each be a service provider of EF's own.</summary>
    public static readonly InAnyCase One = new();

    private InAnyCase() { }

    public Expression QueryCompilationStarting(Expression queryExpression, QueryExpressionEventData eventData) =>
        new Replacing().Visit(queryExpression);

    private sealed class Replacing : ExpressionVisitor
    {
        private static readonly Type[] Asked = [typeof(DbFunctions), typeof(string), typeof(string), typeof(string)];

        private static readonly MethodInfo Like =
            typeof(DbFunctionsExtensions).GetMethod(nameof(DbFunctionsExtensions.Like), Asked)
            ?? throw new MissingMethodException(nameof(DbFunctionsExtensions), nameof(DbFunctionsExtensions.Like));

        private static readonly MethodInfo InAnyCase =
            typeof(NpgsqlDbFunctionsExtensions).GetMethod(nameof(NpgsqlDbFunctionsExtensions.ILike), Asked)
            ?? throw new MissingMethodException(nameof(NpgsqlDbFunctionsExtensions), nameof(NpgsqlDbFunctionsExtensions.ILike));

        protected override Expression VisitMethodCall(MethodCallExpression node) =>
            node.Method == Like
                ? Expression.Call(InAnyCase, node.Arguments.Select(Visit)!) // a call's arguments are none of them null
                : base.VisitMethodCall(node);
    }
}
