# frozen_string_literal: true

module Mordant
  # Something with parameters that are declared once: validation, stored recipes, controls and
  # documents read the same lines. Immutable. Steps and contributors to mattes are.
  class Declared
    class << self
      attr_reader :id, :label

      def named(id, label)
        @id, @label = id.to_s.freeze, label.freeze
      end

      def parameter(name, **declaration)
        parameters[name] = Parameter.new(name, **declaration)
        define_method(name) { @values.fetch(name) }
      end

      # A parameter that is one of some texts; see TextParameter.
      def text(name, **declaration)
        parameters[name] = TextParameter.new(name, **declaration)
        define_method(name) { @values.fetch(name) }
      end

      # A parameter that is a colour; see ColourParameter.
      def colour(name, **declaration)
        parameters[name] = ColourParameter.new(name, **declaration)
        define_method(name) { @values.fetch(name) }
      end

      # A parameter that is a curve; see PointsParameter.
      def points(name, **declaration)
        parameters[name] = PointsParameter.new(name, **declaration)
        define_method(name) { @values.fetch(name) }
      end

      # A parameter that is a list of rows of numbers; see RowsParameter.
      def rows(name, **declaration)
        parameters[name] = RowsParameter.new(name, **declaration)
        define_method(name) { @values.fetch(name) }
      end

      # @return [Hash{Symbol => Parameter, TextParameter, ColourParameter, PointsParameter, RowsParameter}] in the declared order
      def parameters = (@parameters ||= {})

      def neutral = (@neutral ||= new({}))

      # @return [Hash] what an interface needs to know; order: names of parameters as declared
      def to_h
        of = ->(kind) { parameters.values.grep(kind).map(&:to_h) }
        {id:, label:, order: parameters.keys.map(&:to_s), parameters: of[Parameter], texts: of[TextParameter], colours: of[ColourParameter], curves: of[PointsParameter], rows: of[RowsParameter]}
      end
    end

    # @param values [Hash{String, Symbol => Object}] those left out are neutral
    # @param path [String] where they stand, for errors
    # @raise [ParameterError]
    def initialize(values, path: "parameters")
      given = values.transform_keys(&:to_sym)
      unknown = given.keys - self.class.parameters.keys
      unless unknown.empty?
        raise ParameterError.new(path:, expected: "parameters of #{self.class.id} " \
          "(#{self.class.parameters.keys.join(", ")})", found: unknown.first.to_s)
      end
      @values = self.class.parameters.to_h do |name, parameter|
        [name, given.key?(name) ? parameter.check(given[name], "#{path}.#{name}") : parameter.neutral_value]
      end.freeze
      agree(path)
    end

    # @return [Hash{Symbol => Float, Array<Float>, String}]
    attr_reader :values

    # Refuses values that are each in range but do not go together.
    #
    # @raise [ParameterError]
    def agree(_path) = nil

    # @param values [Hash{Symbol => Object}] all of them, known to be good
    # @return [Declared] of the same kind, not checked again
    def bound(values) = self.class.allocate.tap { |one| one.instance_variable_set(:@values, values.freeze) }

    # What the curves of PointsParameters are, for an interface to draw.
    #
    # @param count [Integer]
    # @return [Hash{Symbol => Array<Float>}] values at equal distances of place, 0..1,
    #   of those that have points
    def shapes(count:)
      place = Numo::DFloat.new(count).seq / (count - 1)
      self.class.parameters.values.grep(PointsParameter).filter_map do |parameter|
        points = @values.fetch(parameter.name)
        [parameter.name, parameter.spline(points).call(place).to_a] unless points.empty?
      end.to_h
    end

    def neutral? = @values.all? { |name, value| value == self.class.parameters[name].neutral_value }
  end
end
