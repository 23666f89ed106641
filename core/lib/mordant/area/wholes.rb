# frozen_string_literal: true

module Mordant
  module Area
    # What loops over planes have in common in LLVM's intermediate language, LANES numbers at a time; and whole numbers in doubles, what Strip
    # and Beside have in common of what Boxes do.
    #
    # Source: LLVM language reference, release 15.
    module Wholes
      LANES = 16 # numbers of two lines of the processor's memory
      FLOATS, WHOLES, MASK = %w[float double i1].map { |type| "<#{LANES} x #{type}>" }

      private

      def constant(name, type, place) = "%at#{name} = getelementptr i64, ptr %constants, i64 #{place}\n%#{name} = load #{type}, ptr %at#{name}"

      # A number of the constants in every lane.
      def everywhere(name, place)
        "#{constant("one#{name}", "double", place)}\n%lane#{name} = insertelement #{WHOLES} poison, double %one#{name}, i32 0\n%#{name} = shufflevector #{WHOLES} %lane#{name}, #{WHOLES} poison, <#{LANES} x i32> zeroinitializer"
      end

      # To the next lanes of a loop, the last of which end where it ends, or out of it.
      #
      # @param last [String] where those begin
      def next_lanes(name, last, again, over)
        <<~PART.chomp
          %after#{name} = add i64 %#{name}, #{LANES}
          %next#{name} = call i64 @llvm.umin.i64(i64 %after#{name}, i64 #{last})
          %more#{name} = icmp ult i64 %#{name}, #{last}
          br i1 %more#{name}, label %#{again}, label %#{over}
        PART
      end

      # To the next round of a loop, or out of it.
      def onward(round, count, again, over) = "%next#{round} = add i64 %#{round}, 1\n%more#{round} = icmp ult i64 %next#{round}, #{count}\nbr i1 %more#{round}, label %#{again}, label %#{over}"

      # As Boxes#whole_numbers of %float into %wanted: NaN is 0, and what is held to is rounded to whole numbers.
      def whole
        <<~PART.chomp
          %double = fpext #{FLOATS} %float to #{WHOLES}
          %none = fcmp uno #{WHOLES} %double, %double
          %number = select #{MASK} %none, #{WHOLES} zeroinitializer, #{WHOLES} %double
          %toolow = fcmp olt #{WHOLES} %number, #{every(-Boxes::LARGEST)}
          %least = select #{MASK} %toolow, #{WHOLES} #{every(-Boxes::LARGEST)}, #{WHOLES} %number
          %toohigh = fcmp ogt #{WHOLES} %least, #{every(Boxes::LARGEST)}
          %held = select #{MASK} %toohigh, #{WHOLES} #{every(Boxes::LARGEST)}, #{WHOLES} %least
          %scaled = fmul #{WHOLES} %held, #{every(1 / Boxes::QUANTUM)}
          #{rounded("wanted", "%scaled")}
        PART
      end

      # As Boxes#boxed of %within, the sum over the radius, with %before and %after, which lie beyond it, into %result.
      def weighed
        <<~PART.chomp
          %ends = fadd #{WHOLES} %before, %after
          %some = fmul #{WHOLES} %ends, %share
          %all = fadd #{WHOLES} %within, %some
          %mean = fmul #{WHOLES} %all, %weight
          #{rounded("result", "%mean")}
        PART
      end

      # What %final is as floats, in %rounded.
      def floats = "%shown = fmul #{WHOLES} %final, #{every(Boxes::QUANTUM)}\n%rounded = fptrunc #{WHOLES} %shown to #{FLOATS}"

      def rounded(name, value) = "%#{name}raised = fadd #{WHOLES} #{value}, #{every(Boxes::HALVES)}\n%#{name} = fsub #{WHOLES} %#{name}raised, #{every(Boxes::HALVES)}"

      # By its bits, as a decimal fraction may be none.
      def every(number) = "<#{Array.new(LANES, "double 0x#{[number].pack("G").unpack1("H*").upcase}").join(", ")}>"
    end
  end
end
