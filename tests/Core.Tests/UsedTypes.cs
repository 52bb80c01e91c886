using System.Reflection;
using System.Reflection.Emit;

namespace Zeitplan.Tests;

/// <summary>What a type's code names: in its members' signatures and in what they do.</summary>
internal static class UsedTypes
{
    private static readonly Dictionary<short, OpCode> Codes = typeof(OpCodes)
        .GetFields(BindingFlags.Public | BindingFlags.Static)
        .Select(field => (OpCode)field.GetValue(null)!)
        .ToDictionary(code => code.Value);

    private const BindingFlags Everything =
        BindingFlags.Public
        | BindingFlags.NonPublic
        | BindingFlags.Instance
        | BindingFlags.Static
        | BindingFlags.DeclaredOnly;

    public static IEnumerable<Type> UsedBy(Type type) =>
        new[] { type.BaseType }
            .Concat(type.GetInterfaces())
            .Concat(type.GetFields(Everything).Select(field => field.FieldType))
            .Concat(
                type.GetMethods(Everything)
                    .Concat<MethodBase>(type.GetConstructors(Everything))
                    .SelectMany(method => UsedBy(method))
            )
            .OfType<Type>()
            .SelectMany(Parts);

    private static IEnumerable<Type?> UsedBy(MethodBase method)
    {
        foreach (var parameter in method.GetParameters())
        {
            yield return parameter.ParameterType;
        }

        yield return (method as MethodInfo)?.ReturnType;
        if (method.GetMethodBody() is not { } body)
        {
            yield break;
        }

        foreach (var local in body.LocalVariables)
        {
            yield return local.LocalType;
        }

        foreach (var token in TokensIn(body.GetILAsByteArray()!))
        {
            var member = method.Module.ResolveMember(
                token,
                method.DeclaringType!.IsGenericType ? method.DeclaringType.GetGenericArguments() : null,
                method.IsGenericMethod ? method.GetGenericArguments() : null
            );
            yield return member as Type ?? member?.DeclaringType;
            foreach (
                var argument in member is MethodInfo { IsGenericMethod: true } called
                    ? called.GetGenericArguments()
                    : []
            )
            {
                yield return argument;
            }
        }
    }

    /// <summary>A type with what it is made of: the element of a list, the argument of a generic.</summary>
    private static IEnumerable<Type> Parts(Type type) =>
        type.HasElementType ? Parts(type.GetElementType()!)
        : type.IsGenericType ? type.GetGenericArguments().SelectMany(Parts).Append(type)
        : [type];

    /// <summary>The members that a method's code names.</summary>
    private static IEnumerable<int> TokensIn(byte[] code)
    {
        for (var at = 0; at < code.Length; )
        {
            var opcode = Codes[code[at] == 0xFE ? (short)((0xFE << 8) | code[at + 1]) : code[at]];
            at += opcode.Size;
            var length = opcode.OperandType switch
            {
                OperandType.InlineNone => 0,
                OperandType.ShortInlineBrTarget or OperandType.ShortInlineI or OperandType.ShortInlineVar => 1,
                OperandType.InlineVar => 2,
                OperandType.InlineI8 or OperandType.InlineR => 8,
                OperandType.InlineSwitch => 4 + (4 * BitConverter.ToInt32(code, at)),
                _ => 4,
            };
            if (
                opcode.OperandType
                is OperandType.InlineMethod
                    or OperandType.InlineField
                    or OperandType.InlineType
                    or OperandType.InlineTok
            )
            {
                yield return BitConverter.ToInt32(code, at);
            }

            at += length;
        }
    }
}
