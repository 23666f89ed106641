# frozen_string_literal: true

module Mordant
  module Pointwise
    # A recording as a function in LLVM's intermediate language: a loop that takes LANES pixels at
    # once from the planes through all instructions, so that nothing between is ever stored.
    #
    # Source: LLVM language reference, release 15.
    class Listing
      NAME = "run"
      LANES = 16
      FLOATS, DOUBLES, HALVES, WHOLES, CODES, BYTES, BITS, ADDRESSES = %w[float double half i32 i16 i8 i1 ptr].map { |type| "<#{LANES} x #{type}>" }
      EVERY = "<#{Array.new(LANES, "i1 true").join(", ")}>"
      ARITHMETIC = {add: "fadd", subtract: "fsub", multiply: "fmul", divide: "fdiv"}.freeze
      # Types of what is kept that is no float, and bytes of one.
      KEPT = {code: [CODES, 2], half: [CODES, 2], flag: [CODES, 2], from: [BYTES, 1], low: [BYTES, 1]}.freeze
      TALLIES = %i[count sum].freeze
      MASKS = %i[below above either none].freeze
      CHOICES = {at_least: "olt", at_most: "ogt"}.freeze # where the second operand is taken; of NaN the first

      DECLARED = <<~DECLARED.chomp
        declare #{FLOATS} @llvm.fabs.v#{LANES}f32(#{FLOATS})
        declare #{FLOATS} @llvm.sqrt.v#{LANES}f32(#{FLOATS})
        declare #{FLOATS} @llvm.masked.gather.v#{LANES}f32.v#{LANES}p0(#{ADDRESSES}, i32, #{BITS}, #{FLOATS})
        declare i32 @llvm.vector.reduce.add.v#{LANES}i32(#{WHOLES})
        declare i64 @llvm.vector.reduce.add.v#{LANES}i64(<#{LANES} x i64>)
        declare i64 @llvm.smax.i64(i64, i64)
        declare i64 @llvm.smin.i64(i64, i64)
        declare i64 @llvm.umin.i64(i64, i64)
        declare void @llvm.prefetch.p0(ptr, i32, i32, i32)
        declare void @llvm.memset.p0.i64(ptr, i8, i64, i1)
      DECLARED

      # A function with the arguments of #to_s.
      #
      # @param attributes [Hash{String => String}] what processor it is for
      # @param body [String] from its entry on
      # @return [String]
      def self.function(attributes, body)
        arguments = "i64 %count, ptr noalias %inputs, ptr noalias %outputs, ptr noalias %constants, ptr noalias %tables"
        [DECLARED, "define i32 @#{NAME}(#{arguments}) #0 {", "entry:", body, "}", "attributes #0 = { #{attributes.map { |name, value| "\"#{name}\"=\"#{value}\"" }.join(" ")} }"].join("\n")
      end

      # @param recording [Recording]
      # @return [Array<Integer, nil>] bytes of a pixel of each result, none of a mask; nil: what is counted belongs to no pixel
      def self.bytes(recording)
        recording.results.map do |place|
          name = recording.instructions[place].first
          next if TALLIES.include?(name)

          MASKS.include?(name) ? 0 : KEPT.fetch(name, [FLOATS, 4]).last
        end
      end

      # @param recording [Recording]
      # @param attributes [Hash{String => String}] of the function: what processor it is for
      def initialize(recording, attributes)
        @recording, @attributes, @before, @lines, @names = recording, attributes, [], [], 0
      end

      # run(count, inputs, outputs, constants, tables): count pixels, LANES or more; then the addresses of the planes that come in
      # and of those that are made, of the constants (float) and of the tables. It returns 1 where no float that is made is NaN and
      # no mask holds anywhere, else 0. The last round begins LANES before the end, wherever the one before ended; what has been counted
      # then counts no more.
      #
      # @return [String]
      def to_s
        @recording.tables.each_index { |number| pointer("tables", number) }
        @recording.instructions.each_with_index { |(name, *operands), place| write(name, operands, place) }
        odd = @recording.results.each_with_index.filter_map { |place, number| keep(place, number) }
        @lines << "%odder = or #{BITS} %odd, #{odd.reduce { |one, other| between("or #{BITS} #{one}, #{other}") } || "zeroinitializer"}"
        Listing.function(@attributes, [*@before, "%last = sub i64 %count, #{LANES}", "br label %loop", "loop:", "%at = phi i64 [ 0, %entry ], [ %next, %loop ]",
          "%due = phi i64 [ 0, %entry ], [ %after, %loop ]", "%odd = phi #{BITS} [ zeroinitializer, %entry ], [ %odder, %loop ]", *@lines, foot].join("\n"))
      end

      private

      def write(name, operands, place)
        if ARITHMETIC.key?(name) then set(place, "#{ARITHMETIC.fetch(name)} #{FLOATS} #{pair(*operands)}")
        elsif TALLIES.include?(name) then nil # once it is kept
        elsif CHOICES.key?(name) then choose(place, CHOICES.fetch(name), *operands)
        else
          send(name, place, *operands)
        end
      end

      def set(place, line) = @lines << "%v#{place} = #{line}"

      # A value of its own that no instruction stands for.
      def between(line, lines = @lines)
        (@names += 1).then { |number| "%t#{number}" }.tap { |name| lines << "#{name} = #{line}" }
      end

      def pair(first, second) = "%v#{first}, %v#{second}"

      def choose(place, order, first, second)
        other = between("fcmp #{order} #{FLOATS} #{pair(first, second)}")
        set(place, "select #{BITS} #{other}, #{FLOATS} %v#{second}, #{FLOATS} %v#{first}")
      end

      def floats(place, number) = set(place, "load #{FLOATS}, ptr #{at(pointer("inputs", number), "float")}, align 4")

      def codes(place, number)
        found = between("load #{CODES}, ptr #{at(pointer("inputs", number), "i16")}, align 2")
        set(place, "zext #{CODES} #{found} to #{WHOLES}")
      end

      def wholes(place, number) = set(place, "load #{WHOLES}, ptr #{at(pointer("inputs", number), "i32")}, align 4")

      def constant(place, number)
        address = between("getelementptr float, ptr %constants, i64 #{number}", @before)
        one = between("load float, ptr #{address}", @before)
        lane = between("insertelement #{FLOATS} poison, float #{one}, i32 0", @before)
        @before << "%v#{place} = shufflevector #{FLOATS} #{lane}, #{FLOATS} poison, #{WHOLES} zeroinitializer"
      end

      def absolute(place, value) = set(place, "call #{FLOATS} @llvm.fabs.v#{LANES}f32(#{FLOATS} %v#{value})")

      def root(place, value) = set(place, "call #{FLOATS} @llvm.sqrt.v#{LANES}f32(#{FLOATS} %v#{value})")

      # NaN is not above 0, so that no address is ever made of it.
      def held(place, value, last)
        above = between("fcmp ogt #{FLOATS} %v#{value}, zeroinitializer")
        least = between("select #{BITS} #{above}, #{FLOATS} %v#{value}, #{FLOATS} zeroinitializer")
        below = between("fcmp olt #{FLOATS} #{least}, %v#{last}")
        most = between("select #{BITS} #{below}, #{FLOATS} #{least}, #{FLOATS} %v#{last}")
        set(place, "fptosi #{FLOATS} #{most} to #{WHOLES}")
      end

      def bits(place, value) = set(place, "bitcast #{FLOATS} %v#{value} to #{WHOLES}")

      def shift(place, value, count) = set(place, "lshr #{WHOLES} %v#{value}, #{every(count)}")

      def mask(place, value, bits) = set(place, "and #{WHOLES} %v#{value}, #{every(bits)}")

      def apart(place, one, other) = set(place, "xor #{WHOLES} #{pair(one, other)}")

      def times(place, value, number) = set(place, "mul #{WHOLES} %v#{value}, #{every(number)}")

      def float(place, value) = set(place, "sitofp #{WHOLES} %v#{value} to #{FLOATS}")

      def first(place, index, table) = gather(place, "getelementptr {float, float}, ptr %tables#{table}, #{WHOLES} %v#{index}, i32 0")

      def second(place, index, table) = gather(place, "getelementptr {float, float}, ptr %tables#{table}, #{WHOLES} %v#{index}, i32 1")

      def single(place, index, table) = gather(place, "getelementptr float, ptr %tables#{table}, #{WHOLES} %v#{index}")

      def gather(place, addresses) = set(place, "call #{FLOATS} @llvm.masked.gather.v#{LANES}f32.v#{LANES}p0(#{ADDRESSES} #{between(addresses)}, i32 4, #{BITS} #{EVERY}, #{FLOATS} poison)")

      def below(place, first, second) = set(place, "fcmp olt #{FLOATS} #{pair(first, second)}")

      def above(place, first, second) = set(place, "fcmp ogt #{FLOATS} #{pair(first, second)}")

      def none(place, value) = set(place, "fcmp uno #{FLOATS} #{pair(value, value)}")

      def either(place, first, second) = set(place, "or #{BITS} #{pair(first, second)}")

      def choice(place, mask, yes, no) = set(place, "select #{BITS} %v#{mask}, #{FLOATS} %v#{yes}, #{FLOATS} %v#{no}")

      # Of NaN the sign alone stays.
      def half(place, value)
        near = between("bitcast #{HALVES} #{between("fptrunc #{FLOATS} %v#{value} to #{HALVES}")} to #{CODES}")
        none = between("or #{CODES} #{between("and #{CODES} #{near}, #{every(0x8000, "i16")}")}, #{every(Media::Half::NAN, "i16")}")
        set(place, "select #{BITS} #{between("fcmp uno #{FLOATS} #{pair(value, value)}")}, #{CODES} #{none}, #{CODES} #{near}")
      end

      def code(place, whole) = set(place, "trunc #{WHOLES} %v#{whole} to #{CODES}")

      def low(place, whole) = set(place, "trunc #{WHOLES} %v#{whole} to #{BYTES}")

      def from(place, one, other) = set(place, "add #{BYTES} #{between("sub #{BYTES} #{pair(one, other)}")}, #{every(-128, "i8")}")

      def flag(place, mask) = set(place, "zext #{BITS} %v#{mask} to #{CODES}")

      # @return [String, nil] mask of what should not be
      def keep(place, number)
        name, *operands = @recording.instructions[place]
        return "%v#{place}" if MASKS.include?(name)
        return tally(number, name, *operands) if TALLIES.include?(name)

        type, size = KEPT.fetch(name, [FLOATS, 4])
        @lines << "store #{type} %v#{place}, ptr #{at(pointer("outputs", number), type[/\w+(?=>)/])}, align #{size}"
        between("fcmp uno #{FLOATS} #{pair(place, place)}") if type == FLOATS
      end

      # Pixel after pixel, as several may come to one place; from 0 on.
      def tally(number, name, index, spare, value = nil)
        type, act, size = (name == :count) ? ["i32", "add", 4] : ["double", "fadd", 8]
        places = between("select #{BITS} #{fresh}, #{WHOLES} %v#{index}, #{WHOLES} #{every(spare)}")
        values = value && between("fpext #{FLOATS} %v#{value} to #{DOUBLES}")
        table = pointer("outputs", number)
        @before << "call void @llvm.memset.p0.i64(ptr #{table}, i8 0, i64 #{(spare + 1) * size}, i1 false)"
        LANES.times do |lane|
          at = between("getelementptr #{type}, ptr #{table}, i32 #{between("extractelement #{WHOLES} #{places}, i32 #{lane}")}")
          more = values ? between("extractelement #{DOUBLES} #{values}, i32 #{lane}") : 1
          @lines << "store #{type} #{between("#{act} #{type} #{between("load #{type}, ptr #{at}")}, #{more}")}, ptr #{at}"
        end
        nil
      end

      # @return [String] mask of pixels that no round before had
      def fresh
        @fresh ||= begin
          lane = between("insertelement #{WHOLES} poison, i32 #{between("trunc i64 #{between("sub i64 %due, %at")} to i32")}, i32 0")
          between("icmp uge #{WHOLES} <#{Array.new(LANES) { |at| "i32 #{at}" }.join(", ")}>, #{between("shufflevector #{WHOLES} #{lane}, #{WHOLES} poison, #{WHOLES} zeroinitializer")}")
        end
      end

      def every(number, type = "i32") = "<#{Array.new(LANES, "#{type} #{number}").join(", ")}>"

      # Where the pixels of this round are.
      def at(pointer, type) = between("getelementptr #{type}, ptr #{pointer}, i64 %at")

      # The address that stands at a number in a list of them.
      def pointer(list, number)
        name = "%#{list}#{number}"
        where = between("getelementptr ptr, ptr %#{list}, i64 #{number}", @before)
        @before << "#{name} = load ptr, ptr #{where}"
        name
      end

      def foot
        <<~FOOT
          %after = add i64 %at, #{LANES}
          %next = call i64 @llvm.umin.i64(i64 %after, i64 %last)
          %more = icmp ult i64 %at, %last
          br i1 %more, label %loop, label %done
          done:
          %lanes = bitcast #{BITS} %odder to i#{LANES}
          %even = icmp eq i#{LANES} %lanes, 0
          %answer = zext i1 %even to i32
          ret i32 %answer
        FOOT
      end
    end
  end
end
